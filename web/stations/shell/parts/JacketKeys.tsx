import { keyTray } from "../../../../core/keys/jacketKeys.ts";
import { JACKET_KEY_KINDS, type JacketKeyKind, type JacketKeySettings } from "../../../../core/keys/settings.ts";
import { type OtherWay, wayMark } from "../../../../core/keys/whichWay.ts";
import { siliconeMassG } from "../../../../core/materials/silicone.ts";
import { keysCsv } from "../../../../core/plan/builtKeys.ts";
import type { PlanDocument } from "../../../../core/plan/document/document.ts";
import { type Box, placeInWords } from "../../../../core/survey/place.ts";
import { usePlan } from "../../../document/planStore.ts";
import { saveFile } from "../../../lib/saveFile.ts";
import { useShow } from "../../../lib/show.ts";
import { Figure } from "../../../ui/Figure.tsx";
import { Caution, Choice, More, NumberField, Part } from "../../../ui/fields.tsx";
import { LengthField } from "../../../ui/LengthField.tsx";
import { messages } from "../messages.ts";
import type { ShownKeys } from "../useJacketKeys.ts";

const t = messages.jacketKeys;

/** Keys that hold the jacket in its shell: what kind, where, and the tray that they are cast in. */
export function JacketKeys({
  document,
  keys,
  ways,
  box,
  pieceName,
}: {
  document: PlanDocument;
  keys: ShownKeys;
  /** Ways that the jacket nearly fits beside the right one. */
  ways: readonly OtherWay[];
  box: Box;
  pieceName: string;
}) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const { jacketKeys } = document.shell;
  const set = (change: Partial<JacketKeySettings>) =>
    edit((plan) => ({ ...plan, shell: { ...plan.shell, jacketKeys: { ...plan.shell.jacketKeys, ...change } } }));
  const tray = keyTray(keys.length, jacketKeys);
  const mark = wayMark(ways, keys, box);
  return (
    <Part title={t.title}>
      <Choice<JacketKeyKind>
        label={t.kind}
        value={jacketKeys.kind}
        options={JACKET_KEY_KINDS.map((value) => ({ value, name: t.kinds[value] }))}
        onChange={(kind) => set({ kind })}
      />
      {jacketKeys.kind !== "none" && (
        <>
          <LengthField
            label={t.spacing}
            valueMm={jacketKeys.spacingMm}
            leastMm={50}
            mostMm={1000}
            stepMm={10}
            onChange={(spacingMm) => set({ spacingMm })}
          />
          <More title={t.shape}>
            <LengthField
              label={t.radius}
              valueMm={jacketKeys.radiusMm}
              leastMm={3}
              mostMm={40}
              onChange={(radiusMm) => set({ radiusMm })}
            />
            <LengthField
              label={t.height}
              valueMm={jacketKeys.heightMm}
              leastMm={2}
              mostMm={30}
              onChange={(heightMm) => set({ heightMm })}
            />
            <NumberField
              label={t.taper}
              unit="°"
              value={jacketKeys.taperDeg}
              least={5}
              most={60}
              onChange={(taperDeg) => set({ taperDeg })}
            />
          </More>
          <Figure label={t.count}>{t.bySection(countsOf(keys))}</Figure>
          {keys.length > 0 && (
            <>
              <Figure label={t.tray}>
                {t.trayIs(tray.columns, tray.rows, ...tray.sizeMm.map((mm) => show.length(Math.round(mm))))}
              </Figure>
              <Figure label={t.silicone}>{show.mass(siliconeMassG(tray.siliconeMm3))}</Figure>
              <button
                type="button"
                className="btn btn-xs mt-1"
                onClick={() =>
                  saveFile(
                    `${pieceName.replace(/[^\w-]+/g, "-").toLowerCase()}-keys.csv`,
                    keysCsv(keys, box, mark?.kind === "odd key" ? mark.key : null),
                    "text/csv",
                  )
                }
              >
                {t.sheet}
              </button>
              <p className="quiet mt-1 text-xs">{t.how}</p>
            </>
          )}
        </>
      )}
      {mark ? (
        <Caution>
          {t.nearlyFits(ways.map(({ turnDeg }) => turnDeg))}{" "}
          {mark.kind === "notch"
            ? t.notch(placeInWords(mark.at, box, show.length))
            : t.oddKey(mark.key + 1, placeInWords(mark.at, box, show.length), t.kinds[otherKind(jacketKeys.kind)])}
        </Caution>
      ) : (
        ways.length > 0 && <p className="quiet mt-1 text-sm">{t.oneWay(ways.map(({ turnDeg }) => turnDeg))}</p>
      )}
    </Part>
  );
}

/** What an odd key is made as among keys of a kind. */
function otherKind(kind: JacketKeyKind): JacketKeyKind {
  return kind === "strips" ? "buttons" : "strips";
}

/** How many keys each section has, in their order. */
function countsOf(keys: ShownKeys): number[] {
  const counts: number[] = [];
  for (const { section } of keys) counts[section - 1] = (counts[section - 1] ?? 0) + 1;
  return Array.from(counts, (count) => count ?? 0);
}
