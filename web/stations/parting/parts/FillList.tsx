import type { FillKind, FillPart } from "../../../../core/release/fills.ts";
import { useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { More } from "../../../ui/fields.tsx";

const MADE_OF: Readonly<Record<FillKind, string>> = {
  silicone: "silicone, with the thick coats",
  clay: "clay over the jacket",
  web: "web of clay, before the first coat",
};

/** The fills part by part: how much, made of what, and where. */
export function FillList({ parts }: { parts: readonly FillPart[] }) {
  const show = useShow();
  const { stage } = useStage();
  if (parts.length === 0) return null;
  return (
    <More title={`The fills, one by one (${parts.length})`}>
      <ul className="text-sm" data-testid="fills">
        {parts.map(({ kind, volumeMm3, thickMm, at }) => (
          <li key={at.join()} className="flex items-baseline justify-between gap-2 py-1">
            <button
              type="button"
              className="text-left underline decoration-dotted underline-offset-4"
              onClick={() => stage?.comeTo(at)}
            >
              {MADE_OF[kind]}
            </button>
            <span className="shrink-0">{`${show.volume(volumeMm3)}, ${show.length(thickMm)} thick`}</span>
          </li>
        ))}
      </ul>
    </More>
  );
}
