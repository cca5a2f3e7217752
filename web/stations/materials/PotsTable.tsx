/** Every coat and layer in pots: how many, how much in each, why no more, and the weigh-out card of one. */
import { useState } from "react";
import { keepRatio, type MixingSettings } from "../../../core/materials/mixing.ts";
import { HOT_C, HURRY_MIN, LONG_MIN, type PotRow } from "../../../core/takeoff/pots.ts";
import { parseWeighedG, weighedEntry } from "../../../core/units/index.ts";
import { type Show, useShow } from "../../lib/show.ts";
import { type Column, DataTable } from "../../ui/DataTable.tsx";
import { WorkingNote } from "../../ui/Figure.tsx";
import { Caution } from "../../ui/fields.tsx";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { usePots } from "./usePots.ts";

const t = messages.pots;

export const stepName = ({ step: { kind, number, name } }: Pick<PotRow, "step">) => t.steps[kind](number, name);

export function PotsTable(props: StationProps) {
  const show = useShow();
  const rows = usePots(props);
  if (rows.length === 0) return <p className="quiet">{t.waiting}</p>;
  const { mixing } = props.document;
  const { temperatureC } = mixing;
  const cold = rows.filter(({ potMin }) => potMin === null);
  const hurried = rows.filter(({ potMin }) => potMin !== null && potMin < HURRY_MIN);
  const slow = rows.filter(({ potMin, mixture }) => potMin !== null && mixture.hastens && potMin > LONG_MIN);
  const names = (of: readonly PotRow[]) => [...new Set(of.map(({ mixture }) => mixture.name))].join(", ");
  const columns: readonly Column<PotRow>[] = [
    { id: "step", name: t.step, value: stepName, widthPx: 170 },
    { id: "mix", name: t.mix, value: ({ mixture }) => mixture.name, widthPx: 150 },
    {
      id: "laid",
      name: t.laid,
      value: ({ laidG }) => laidG,
      show: ({ laidG }) => show.mass(laidG),
      right: true,
      widthPx: 75,
    },
    {
      id: "pots",
      name: t.pots,
      value: ({ pots }) => pots.count,
      show: ({ pots }) => (
        <span className="font-medium whitespace-nowrap">{t.times(pots.count, show.mass(pots.eachG))}</span>
      ),
      right: true,
      widthPx: 105,
    },
    {
      id: "life",
      name: t.life,
      value: ({ potMin }) => potMin ?? 0,
      show: ({ potMin }) => (potMin === null ? t.never : t.minutes(Math.round(potMin))),
      right: true,
      widthPx: 75,
    },
    {
      id: "hot",
      name: t.hot(show.temperature(HOT_C)),
      value: ({ whenHot }) => whenHot.count,
      show: ({ whenHot }) => t.hotly(whenHot.count, Math.round(whenHot.potMin)),
      right: true,
      widthPx: 95,
    },
  ];
  return (
    <section aria-label={t.title}>
      <header className="flex items-baseline justify-between gap-3 pb-2">
        <h2 className="text-xl font-semibold">
          {t.title} <span className="quiet text-sm font-normal">{t.at(show.temperature(temperatureC))}</span>
        </h2>
        <button type="button" className="btn btn-sm" onClick={() => window.print()}>
          {t.print}
        </button>
      </header>
      {cold.length > 0 && <Caution>{t.tooCold(names(cold), show.temperature(temperatureC))}</Caution>}
      {hurried.length > 0 && <Caution>{t.hurry(names(hurried), HURRY_MIN)}</Caution>}
      {slow.length > 0 && <Caution>{t.slow(names(slow), LONG_MIN)}</Caution>}
      <DataTable
        rows={rows}
        columns={columns}
        keyOf={({ step }) => `${step.kind} ${step.number} ${step.name}`}
        filterLabel={t.find}
        detail={(row) => <Card row={row} coats={props.document.jacket.coats.length} mixing={mixing} show={show} />}
      />
      <p className="quiet mt-2 text-sm">{t.how}</p>
    </section>
  );
}

/** What is weighed or counted of a part; less than the scale tells is a pinch. */
export function amountOf(g: number, drops: number | null, weighed: string): string {
  if (drops !== null) return t.drops(drops);
  return g > 0 ? weighed : t.pinch;
}

/** Nobody pours more exactly than this share of a pot. */
const HELD_SHARE = 0.004;

/** The weigh-out card of one pot, and what to add where somebody poured too much. */
function Card({ row, coats, mixing, show }: { row: PotRow; coats: number; mixing: MixingSettings; show: Show }) {
  const { scaleStepG: stepG } = mixing;
  const { card, pots, mixture, lossG } = row;
  return (
    <div className="grid gap-6 md:grid-cols-2" data-testid="weigh-out">
      <div>
        <p className="font-medium">{t.onePot(show.mass(pots.eachG))}</p>
        <table className="table table-xs">
          <thead>
            <tr>
              {[t.part, t.weigh, t.scaleShows, t.orMl].map((name) => (
                <th key={name} className="text-base-content">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {card.map(({ name, g, runningG, ml, drops }) => (
              <tr key={name}>
                <td>{name}</td>
                <td className="font-medium">{amountOf(g, drops, show.weighed(g, stepG))}</td>
                <td>{runningG === null ? t.alone : show.weighed(runningG, stepG)}</td>
                <td>{ml === null ? "" : t.millilitres(Math.round(ml))}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="quiet text-xs">
          {t.limits[pots.by]}{" "}
          {pots.by === "time" && t.working(mixing.people, mixing.pace, mixture.gPerMin, Math.round(row.potMin ?? 0))}{" "}
          {t.loss(show.mass(lossG))} {leftOverText(row, coats, show)} {stirText(row)}
        </p>
        <details className="mt-1">
          <summary className="cursor-pointer list-none text-xs underline decoration-dotted underline-offset-4">
            {t.howSo}
          </summary>
          <WorkingNote working={row.working} />
        </details>
      </div>
      {mixture.parts.length > 1 && <Overpoured row={row} stepG={stepG} show={show} />}
    </div>
  );
}

/** How it is stirred: gypsum is sifted and soaks; whatever is whipped holds air. */
export function stirText({ step: { kind }, mixture: { hastens } }: PotRow): string {
  if (kind !== "layer") return `${t.stir} ${t.air}`;
  return hastens ? t.stir : t.soak;
}

/** Less than this is not worth a word, g. */
const TOLD_G = 5;

/** What the last pot leaves, and what it is good for: the undercuts of the coat that comes next, or patches. */
export function leftOverText({ step, leftOverG }: PotRow, coats: number, show: Show): string {
  if (leftOverG < TOLD_G) return t.leavesNothing;
  const use = step.kind === "coat" && step.number < coats ? t.intoUndercuts(step.number + 1) : t.intoPatches;
  return `${t.leaves(show.mass(leftOverG))}: ${use}`;
}

/** Ounces that a card is followed to. */
const OZ_DIGITS = 2;

function Overpoured({ row: { card, mixture }, stepG, show }: { row: PotRow; stepG: number; show: Show }) {
  const { unit, grams: unitG } = weighedEntry(show.units);
  const [poured, setPoured] = useState(() =>
    mixture.parts.map((_, k) => String(Number((card[k].g / unitG).toFixed(unitG > 1 ? OZ_DIGITS : 3)))),
  );
  const read = poured.map((text) => parseWeighedG(text, show.units));
  const grams = read.map((g) => g ?? 0);
  const wrong = read.some((g) => g === null);
  const { addG, potG } = wrong ? { addG: [], potG: 0 } : keepRatio(mixture, grams);
  // What the card says is right as it is, though the scale rounds its parts.
  const asWeighed = grams.every((g, k) => Math.abs(g - card[k].g) <= stepG);
  const added = addG.flatMap((g, k) =>
    !asWeighed && g > Math.max(stepG, HELD_SHARE * potG) ? [t.add(show.weighed(g, stepG), mixture.parts[k].name)] : [],
  );
  return (
    <div>
      <p className="font-medium">{t.tooMuch}</p>
      {mixture.parts.map(({ name }, k) => (
        <label key={name} className="mt-1 flex items-center justify-between gap-3 text-sm">
          {t.poured(name)}
          <span className="input input-xs w-28">
            <input
              className="text-right"
              inputMode="decimal"
              value={poured[k]}
              onChange={(event) => setPoured(poured.map((text, n) => (n === k ? event.target.value : text)))}
            />
            <span className="quiet">{unit}</span>
          </span>
        </label>
      ))}
      <p className="mt-2 text-sm" role="status">
        {wrong ? t.noNumber : added.length === 0 ? t.holds : t.addThese(added.join(", "), show.mass(potG))}
      </p>
    </div>
  );
}
