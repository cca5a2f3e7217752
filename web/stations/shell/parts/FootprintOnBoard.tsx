/** The footprint on the drawing board: what is laid under the work before the first coat, and drilled. */
import { useMemo } from "react";
import { type Footprint, footprintDrawing } from "../../../../core/foot/footprint.ts";
import type { BuiltWall } from "../../../../core/plan/builtWalls.ts";
import { messages } from "../messages.ts";
import { DrawingOnBoard } from "./DrawingOnBoard.tsx";

const t = messages.foot;

interface FootprintProps {
  readonly footprint: Footprint;
  readonly walls: readonly BuiltWall[];
  readonly boltMm: number;
  readonly pxPerMm: number;
  readonly pieceName: string;
  readonly paper: string;
}

export function FootprintOnBoard({ footprint, walls, boltMm, pxPerMm, pieceName, paper }: FootprintProps) {
  const drawing = useMemo(
    () =>
      footprintDrawing(
        footprint,
        walls.map(({ wall }) => wall),
        0,
        boltMm,
        { ...t.words, title: `${pieceName}: ${t.drawn}` },
      ),
    [footprint, walls, boltMm, pieceName],
  );
  return (
    <DrawingOnBoard
      {...{ drawing, pieceName, paper, pxPerMm }}
      title={t.drawn}
      fileName="footprint"
      testId="footprint"
      nothing={t.nothing}
    />
  );
}
