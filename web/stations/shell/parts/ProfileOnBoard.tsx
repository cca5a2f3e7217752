/** The profile on the drawing board. */
import { useMemo } from "react";
import { profileDrawing } from "../../../../core/patterns/profile.ts";
import { useShow } from "../../../lib/show.ts";
import { messages } from "../messages.ts";
import type { ShownProfile } from "../useProfile.ts";
import { DrawingOnBoard } from "./DrawingOnBoard.tsx";

const t = messages.profiles;

interface ProfileProps {
  readonly profile: ShownProfile;
  readonly pxPerMm: number;
  readonly pieceName: string;
  readonly paper: string;
}

export function ProfileOnBoard({ profile, pxPerMm, pieceName, paper }: ProfileProps) {
  const show = useShow();
  const { plane, atMm, lines } = profile;
  const title = t.named(t.planes[plane], show.length(Math.round(atMm)));
  const drawing = useMemo(() => {
    const names: string[] = [];
    for (const { mesh } of lines) names[mesh] = messages.solids.numbered(mesh + 1);
    return profileDrawing(lines, `${pieceName}: ${title}`, names);
  }, [lines, title, pieceName]);
  return (
    <DrawingOnBoard
      {...{ drawing, title, pieceName, paper, pxPerMm }}
      fileName="profile"
      testId="profile"
      nothing={t.nothing}
      comesIntoView
    />
  );
}
