/** The shell step by step as it is built: on the stage, and in words what stands and what comes next. */
import { useEffect } from "react";
import type { BuildStep } from "../../../../core/plan/buildSteps.ts";
import type { BuiltWall } from "../../../../core/plan/builtWalls.ts";
import type { PlanDocument } from "../../../../core/plan/document/document.ts";
import { layTerms } from "../../../../core/plan/document/document.ts";
import { shellLayers, shellSystem } from "../../../../core/shell/index.ts";
import { layupFor } from "../../../../core/shell/layup.ts";
import { useShow } from "../../../lib/show.ts";
import { OpenCautions } from "../../../planning/OpenCautions.tsx";
import { Part } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";
import { usePicked } from "../picked.ts";

const t = messages.building;
const LIST = new Intl.ListFormat("en", { type: "conjunction" });

interface BuildWalkProps {
  readonly steps: readonly BuildStep[];
  readonly walls: readonly BuiltWall[];
  readonly document: PlanDocument;
  /** Ids of the sections, in their order. */
  readonly ids: readonly string[];
}

export function BuildWalk({ steps, walls, document, ids }: BuildWalkProps) {
  const show = useShow();
  const { step: at, walk } = usePicked();
  // Whoever leaves the station leaves the walk.
  useEffect(() => () => usePicked.getState().walk(null), []);
  if (steps.length < 2) return null;
  const step = at === null ? undefined : steps[at];
  const namesOf = (own: readonly number[]) => LIST.format(own.map((n) => String(walls[n]?.pattern.number ?? n + 1)));
  const layup = step && layupFor(document.shell, ids[step.section - 1]);
  const heights = (step?.blocks ?? []).map(({ heightMm }) => show.length(Math.round(heightMm)));
  return (
    <Part title={t.title}>
      {at === null || !step ? (
        <button type="button" className="btn btn-sm" onClick={() => walk(0)}>
          {t.begin}
        </button>
      ) : (
        <div data-testid="build-walk">
          <p className="quiet text-sm">{t.step(at + 1, steps.length)}</p>
          <p className="font-medium">
            {step.kind === "walls"
              ? t.walls(step.section, step.walls.length, namesOf(step.walls))
              : t.laid(step.section)}
          </p>
          {step.kind === "walls" && heights.length > 0 && <p className="text-sm">{t.blocks(heights.join(", "))}</p>}
          {step.kind === "walls" && <p className="text-sm">{t.release}</p>}
          <OpenCautions document={document} places={step.kind === "walls" ? ["walls", "board"] : ["shell"]} />
          {step.kind === "laid" && layup && (
            <ol className="list-decimal pl-5 text-sm">
              {shellLayers(layup, layTerms(document)).map(({ id, name, thicknessMm }) => (
                <li key={id}>
                  {name}
                  {thicknessMm > 0 && `, ${show.length(Math.round(10 * thicknessMm) / 10)}`}
                </li>
              ))}
            </ol>
          )}
          {step.kind === "laid" && layup && (
            <p className="text-sm">{t.wait(shellSystem(layup.system).name, step.section === ids.length)}</p>
          )}
          <p className="mt-2 flex gap-2">
            <button type="button" className="btn btn-sm" disabled={at === 0} onClick={() => walk(at - 1)}>
              {t.back}
            </button>
            <button
              type="button"
              className="btn btn-sm btn-neutral"
              disabled={at === steps.length - 1}
              onClick={() => walk(at + 1)}
            >
              {t.next}
            </button>
            <button type="button" className="btn btn-sm" onClick={() => walk(null)}>
              {t.end}
            </button>
          </p>
        </div>
      )}
    </Part>
  );
}
