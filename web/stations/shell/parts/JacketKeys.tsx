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
import { usePicked } from "../picked.ts";
import type { KeyHands, ShownKeys } from "../useJacketKeys.ts";

const t = messages.jacketKeys;

/** Keys that hold the jacket in its shell: what kind, where, and the tray that they are cast in. */
export function JacketKeys({
  document,
  keys,
  hands,
  ways,
  box,
  pieceName,
}: {
  document: PlanDocument;
  keys: ShownKeys;
  hands: KeyHands;
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
          {jacketKeys.placed === null && (
            <LengthField
              label={t.spacing}
              valueMm={jacketKeys.spacingMm}
              leastMm={50}
              mostMm={1000}
              stepMm={10}
              onChange={(spacingMm) => set({ spacingMm })}
            />
          )}
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
          <ByHand keys={keys} hands={hands} placed={jacketKeys.placed !== null} />
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

/** Keys in hand: set, dragged and taken away, with what speaks against each where it stands. */
function ByHand({ keys, hands, placed }: { keys: ShownKeys; hands: KeyHands; placed: boolean }) {
  const show = useShow();
  const { keyHand, key } = usePicked();
  const chosen = key === null ? undefined : keys[key];
  const button = (name: string, press: () => void, pressed = false) => (
    <button
      type="button"
      aria-pressed={pressed}
      className={`btn btn-xs ${pressed ? "btn-neutral" : ""}`}
      onClick={press}
    >
      {name}
    </button>
  );
  return (
    <div className="mt-1 flex flex-col items-start gap-1" data-testid="keys-by-hand">
      {keyHand === null ? (
        button(t.byHand, () => hands.take("move"))
      ) : (
        <>
          <p className="quiet text-sm">{keyHand === "add" ? t.adding : t.drag}</p>
          <div className="flex flex-wrap gap-2">
            {button(t.add, () => hands.take(keyHand === "add" ? "move" : "add"), keyHand === "add")}
            {key !== null && chosen && button(t.remove(key + 1), () => hands.remove(key))}
            {button(t.leave, () => hands.take(null))}
          </div>
          {key !== null && chosen && chosen.troubles.length === 0 && (
            <p className="text-sm">
              {t.clear(
                key + 1,
                show.length(Math.round(chosen.toLineMm)),
                show.length(Math.round(10 * chosen.biteMm) / 10),
              )}
            </p>
          )}
        </>
      )}
      {placed && button(t.byRule, hands.byRule)}
      {keys.map(({ troubles, at }, k) =>
        troubles.length > 0 ? (
          <Caution key={at.join()}>
            {t.trouble(k + 1, troubles.map((trouble) => t.troubles[trouble]).join(", "))}
          </Caution>
        ) : null,
      )}
    </div>
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
