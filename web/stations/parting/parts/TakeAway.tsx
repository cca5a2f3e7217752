import { useState } from "react";
import { Caution, Part } from "../../../ui/fields.tsx";
import type { StationProps } from "../../station.ts";
import { messages } from "../messages.ts";

const FILES = [
  { kind: "glb", name: "plan.glb", label: messages.takeAway.sectionsGlb },
  { kind: "stl", name: "jacket-filled.stl", label: messages.takeAway.filledJacketStl },
  { kind: "dxf", name: "parting.dxf", label: messages.takeAway.linesDxf },
  { kind: "json", name: "parting.json", label: messages.takeAway.linesJson },
] as const;

/** Files of the plan in open formats. */
export function TakeAway({ planning }: { planning: StationProps["planning"] }) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const take = async (kind: (typeof FILES)[number]["kind"], name: string) => {
    setBusy(true);
    const answer = await planning.takeFile(kind);
    setBusy(false);
    setProblem(answer.ok ? null : answer.message);
    if (!answer.ok) return;
    const link = window.document.createElement("a");
    link.href = URL.createObjectURL(new Blob([answer.value as Uint8Array<ArrayBuffer> | string]));
    link.download = name;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <Part title={messages.takeAway.takeItWithYou}>
      <div className="grid grid-cols-2 gap-1">
        {FILES.map(({ kind, name, label }) => (
          <button
            key={kind}
            type="button"
            disabled={busy}
            className="btn btn-sm font-normal"
            onClick={() => void take(kind, name)}
          >
            {label}
          </button>
        ))}
      </div>
      {problem && <Caution>{problem}</Caution>}
    </Part>
  );
}
