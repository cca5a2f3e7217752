import { useMemo } from "react";
import { builtRibs } from "../../../../core/plan/builtRibs.ts";
import type { PlanDocument } from "../../../../core/plan/document/document.ts";
import { MOST_RIBS, type Spans } from "../../../../core/ribs/ribs.ts";
import {
  IN_PLASTER,
  POLE_MATERIALS,
  POLES_MM,
  RIB_KINDS,
  RIB_SPANS_MM,
  type RibKind,
  type RibSettings,
} from "../../../../core/ribs/settings.ts";
import { shellSystem } from "../../../../core/shell/index.ts";
import { spanLimitMm } from "../../../../core/shell/span.ts";
import { type Box, placeInWords } from "../../../../core/survey/place.ts";
import { usePlan } from "../../../document/planStore.ts";
import { useShow } from "../../../lib/show.ts";
import { Figure } from "../../../ui/Figure.tsx";
import { Caution, Choice, Part } from "../../../ui/fields.tsx";
import { LengthField } from "../../../ui/LengthField.tsx";
import { messages } from "../messages.ts";

const t = messages.ribs;

/** How far the sections span between their flanges, and what stiffens them where that is too far. */
export function Ribs({
  document,
  spans,
  ids,
  box,
}: {
  document: PlanDocument;
  spans: Spans;
  ids: readonly string[];
  box: Box;
}) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const { ribs, system } = document.shell;
  const set = (change: Partial<RibSettings>) =>
    edit((plan) => ({ ...plan, shell: { ...plan.shell, ribs: { ...plan.shell.ribs, ...change } } }));
  const byStrengthMm = Math.round(spanLimitMm(document.shell));
  const spoiled = ribs.kind === "poles" && shellSystem(system).isWet ? IN_PLASTER[ribs.pole] : null;
  const built = useMemo(() => builtRibs(spans.ribs, document, ids), [spans, document, ids]);
  const crowded = spans.widestMm
    .map((_, s) => s + 1)
    .filter((number) => spans.ribs.filter(({ section }) => section === number).length >= MOST_RIBS);
  const totalMm = built.reduce((sum, { coreMm }) => sum + coreMm, 0);
  return (
    <Part title={t.title}>
      <Choice<RibKind>
        label={t.kind}
        value={ribs.kind}
        options={RIB_KINDS.map((value) => ({ value, name: t.kinds[value] }))}
        onChange={(kind) => set({ kind })}
      />
      <Choice
        label={t.limit}
        value={ribs.spanMm === null ? "strength" : "hand"}
        options={[
          { value: "strength", name: t.byStrength(show.length(byStrengthMm)) },
          { value: "hand", name: t.byHand },
        ]}
        onChange={(how) => set({ spanMm: how === "strength" ? null : byStrengthMm })}
      />
      {ribs.spanMm !== null && (
        <LengthField
          label={t.limit}
          valueMm={ribs.spanMm}
          leastMm={RIB_SPANS_MM.least}
          mostMm={RIB_SPANS_MM.most}
          stepMm={10}
          onChange={(spanMm) => set({ spanMm })}
        />
      )}
      <p className="quiet mt-1 text-xs">{t.rule}</p>
      {spans.widestMm.length > 0 && (
        <Figure label={t.widest}>{spans.widestMm.map((mm) => show.length(10 * Math.round(mm / 10))).join(", ")}</Figure>
      )}
      {ribs.kind === "poles" && (
        <label className="mt-1 flex items-center justify-between gap-2 text-sm">
          <span className="quiet">{t.pole}</span>
          <select
            className="select select-sm w-52"
            value={ribs.pole}
            onChange={(event) => set({ pole: event.target.value as RibSettings["pole"] })}
          >
            {POLE_MATERIALS.map((pole) => (
              <option key={pole} value={pole}>
                {t.poles[pole]}
              </option>
            ))}
          </select>
        </label>
      )}
      {ribs.kind !== "none" && (
        <LengthField
          label={t.thick[ribs.kind]}
          valueMm={ribs.poleMm}
          leastMm={POLES_MM.least}
          mostMm={POLES_MM.most}
          stepMm={1}
          onChange={(poleMm) => set({ poleMm })}
        />
      )}
      {spoiled && <Caution>{t.spoils[spoiled]}</Caution>}
      {ribs.kind !== "none" &&
        spans.widestMm.length > 0 &&
        (spans.ribs.length === 0 ? (
          <p className="quiet mt-1 text-sm">{t.none}</p>
        ) : (
          <>
            <ul className="mt-1 text-sm">
              {built.map(({ section, coreMm, middleMm }) => (
                <li key={`${section} ${middleMm.join(" ")}`}>
                  {t.where(
                    section,
                    show.length(Math.round(coreMm)),
                    placeInWords(middleMm, box, (mm) => show.length(mm)),
                  )}
                </li>
              ))}
            </ul>
            {crowded.map((section) => (
              <Caution key={section}>{t.tooMany(section, MOST_RIBS)}</Caution>
            ))}
            <Figure label={t.total}>{show.length(10 * Math.round(totalMm / 10))}</Figure>
            <p className="quiet mt-1 text-xs">{t.how}</p>
          </>
        ))}
    </Part>
  );
}
