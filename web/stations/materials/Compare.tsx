/** The shell systems and the silicones on this very piece, side by side; one is switched to at a click. */
import { X } from "lucide-react";
import { Fragment, lazy, Suspense, useContext, useMemo, useState } from "react";
import { jacketThicknessMm } from "../../../core/jacket/coat.ts";
import { entryOf, type SiliconeKey } from "../../../core/materials/catalogue.ts";
import { CAUTIONS, type CautionId } from "../../../core/materials/cautions.ts";
import { siliconeOf } from "../../../core/materials/silicone.ts";
import { layupOf, withSilicone } from "../../../core/plan/document/choose.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { freshId } from "../../../core/plan/document/identity.ts";
import { jacketTotalsOf, told } from "../../../core/plan/results/figures.ts";
import { shellSystem, typicalLayup } from "../../../core/shell/index.ts";
import { type Layup, MOST_VARIANTS } from "../../../core/shell/layup.ts";
import {
  type ComparedJacket,
  type ComparedSilicone,
  compareJackets,
  compareSilicones,
  pouredBlock,
} from "../../../core/takeoff/compareJackets.ts";
import { type ComparedShell, compareShells, type ShellFigure } from "../../../core/takeoff/compareShells.ts";
import { coatMinor } from "../../../core/takeoff/cost.ts";
import { usePlan } from "../../document/planStore.ts";
import { today } from "../../lib/dates.ts";
import { SettingsContext, useShow } from "../../lib/show.ts";
import { WorkingNote } from "../../ui/Figure.tsx";
import { type OpenFigure, type OpenRow, OpenTable } from "../../ui/OpenTable.tsx";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { StoreContext } from "./storeHeld.ts";

const t = messages.compare;
/** What a shell may do to whoever lays it, in a word. */
const SHORT: Readonly<Partial<Record<CautionId, string>>> = t.hazards;
const ShellChart = lazy(() => import("./ShellChart.tsx"));

export function Compare({ document, planning }: StationProps) {
  const { rates } = useContext(SettingsContext);
  const store = useContext(StoreContext);
  const figures = planning.bundle?.figures;
  const { fixings } = planning;
  const compared = useMemo(() => {
    if (!figures) return null;
    const parting = told(figures);
    const jacket = jacketTotalsOf(parting, document);
    const totals = { jacket, parting, rates, store, today: today(), ...(fixings ? { fixings } : {}) };
    const { sizeMm, volumeMm3, areaMm2 } = parting.piece;
    const { silicone } = document.jacket;
    const { own } = document.materials;
    const { siliconeG, outerAreaMm2 } = parting.jacket;
    return {
      shells: compareShells(document, totals),
      silicones: compareSilicones(document, totals),
      jackets: compareJackets(
        document,
        siliconeG,
        [areaMm2, outerAreaMm2],
        coatMinor(silicone, 1, figures.takeoff.units),
        rates,
      ),
      block: pouredBlock(sizeMm, volumeMm3, siliconeOf(silicone, own).densityGPerCm3),
    };
  }, [figures, document, rates, store, fixings]);
  if (!compared) return <p className="quiet">{messages.pots.waiting}</p>;
  return (
    <>
      <Shells shells={compared.shells} document={document} />
      <KeepLayup document={document} />
      <Suspense fallback={<div className="h-56" />}>
        <ShellChart shells={compared.shells} />
      </Suspense>
      <Silicones silicones={compared.silicones} own={document.jacket.silicone} block={compared.block} />
      <Jackets jackets={compared.jackets} ownMm={jacketThicknessMm(document.jacket.coats)} />
    </>
  );
}

function Shells({ shells, document }: { shells: readonly ComparedShell[]; document: PlanDocument }) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const { variants } = document.shell;
  const heads = [
    ...[t.system, "", t.thickness, t.heaviest, t.total],
    ...[t.hands, t.ready, t.materials, t.handsCost, t.spans],
  ];
  /** The lay-up of the whole shell: single sections are as the rest again. */
  const take = (layup: Layup) => edit((plan) => ({ ...plan, shell: { ...plan.shell, ...layup, sections: [] } }));
  const forget = (id: string) =>
    edit((plan) => ({
      ...plan,
      shell: { ...plan.shell, variants: plan.shell.variants.filter((variant) => variant.id !== id) },
    }));
  const rowOf = (shell: ComparedShell): OpenRow => {
    const { id, name, thicknessMm, heaviestG, totalG, handsMin, days, materialsMinor, handsMinor, spanMm } = shell;
    const { edges, cautions } = shellSystem(shell.system);
    const variant = variants.find((each) => each.id === id);
    const isChosen = id === document.shell.system;
    const figure = (key: ShellFigure, head: string, text: string): OpenFigure => ({
      ...{ name: head, text },
      working: () => shell.workings()[key],
    });
    return {
      ...{ id, isChosen },
      cells: [
        <Fragment key="name">
          {name}
          <span className="quiet block font-normal" title={cautions.map((each) => CAUTIONS[each]).join(" ")}>
            {t.edgesAre(edges.toLowerCase())}, {cautions.flatMap((each) => SHORT[each] ?? []).join(", ")}
          </span>
        </Fragment>,
        <Fragment key="take">
          {isChosen ? (
            t.chosen
          ) : (
            <Take
              name={name}
              onClick={() => {
                const { system, figures, order } = variant ?? typicalLayup(id);
                take({ system, figures, order });
              }}
            />
          )}
          {variant && (
            <button
              type="button"
              className="btn btn-ghost btn-xs px-1"
              aria-label={t.forget(name)}
              onClick={() => forget(id)}
            >
              <X aria-hidden="true" size={14} />
            </button>
          )}
        </Fragment>,
        figure("thickness", t.thickness, show.length(Math.round(10 * thicknessMm) / 10)),
        figure("heaviest", t.heaviest, show.mass(heaviestG)),
        figure("total", t.total, show.mass(totalG)),
        figure("hands", t.hands, show.hours(handsMin)),
        figure("ready", t.ready, t.days(days.toFixed(1))),
        figure("materials", t.materials, show.money(materialsMinor)),
        figure("wages", t.handsCost, show.money(handsMinor)),
        figure("spans", t.spans, show.length(10 * Math.round(spanMm / 10))),
      ],
    };
  };
  return (
    <section aria-label={t.shells}>
      <h2 className="mb-1 text-xl font-semibold">{t.shells}</h2>
      <div className="overflow-x-auto">
        <OpenTable className="[&_td]:px-1.5" testId="compared-shells" heads={heads} rows={shells.map(rowOf)} />
      </div>
      <p className="quiet mt-1 mb-3 text-xs">{t.how}</p>
    </section>
  );
}

/** Takes one into the plan in the place of what it has. */
function Take({ name, onClick }: { name: string; onClick: () => void }) {
  return (
    <button type="button" className="btn btn-xs whitespace-nowrap" aria-label={t.switchTo(name)} onClick={onClick}>
      {t.take}
    </button>
  );
}

/** Keeps the plan's lay-up under a name, as one more row to compare. */
function KeepLayup({ document }: { document: PlanDocument }) {
  const edit = usePlan((plan) => plan.edit);
  const [name, setName] = useState("");
  const full = document.shell.variants.length >= MOST_VARIANTS;
  return (
    <form
      className="mb-3 flex flex-wrap items-center gap-2 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        edit((plan) => {
          const { id, identity } = freshId(plan.identity, "variant");
          const variant = { ...layupOf(plan, null), id, name: name.trim() };
          return { ...plan, identity, shell: { ...plan.shell, variants: [...plan.shell.variants, variant] } };
        });
        setName("");
      }}
    >
      <label className="flex items-center gap-2">
        <span className="quiet">{t.name}</span>
        <input
          className="input input-sm w-64"
          maxLength={60}
          placeholder={t.namedFor}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <button type="submit" className="btn btn-sm" disabled={full || name.trim() === ""}>
        {t.keep}
      </button>
    </form>
  );
}

/** What a jacket of another thickness would take. */
function Jackets({ jackets, ownMm }: { jackets: readonly ComparedJacket[]; ownMm: number }) {
  const show = useShow();
  return (
    <section aria-label={t.jackets} className="mt-6">
      <h2 className="mb-1 text-xl font-semibold">{t.jackets}</h2>
      <OpenTable
        className="max-w-xl"
        testId="compared-jackets"
        heads={[t.thickness, t.jacketOf, t.price, t.gives]}
        rows={jackets.map(({ thicknessMm, siliconeG, priceMinor, giveMm, workings }) => ({
          id: String(thicknessMm),
          isChosen: Math.abs(thicknessMm - ownMm) < 0.05,
          cells: [
            show.length(thicknessMm),
            { name: t.jacketOf, text: show.mass(siliconeG), working: () => workings().mass },
            { name: t.price, text: show.money(Math.round(priceMinor)), working: () => workings().price },
            { name: t.gives, text: show.length(Math.round(10 * giveMm) / 10), working: () => workings().give },
          ],
        }))}
      />
      <p className="quiet mt-1 text-xs">{t.jacketsHow}</p>
    </section>
  );
}

interface SiliconesProps {
  readonly silicones: readonly ComparedSilicone[];
  readonly own: SiliconeKey;
  readonly block: ReturnType<typeof pouredBlock>;
}

function Silicones({ silicones, own, block }: SiliconesProps) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  return (
    <section aria-label={t.silicones} className="mt-6">
      <h2 className="mb-1 text-xl font-semibold">{t.silicones}</h2>
      <OpenTable
        testId="compared-silicones"
        heads={[t.silicone, t.jacket, t.potLife, t.waits, t.shrinks, t.price, ""]}
        rows={silicones.map(({ id, massG, potMin, waitMin, shrinkPercent, priceMinor, workings }) => ({
          id,
          isChosen: id === own,
          cells: [
            entryOf(id).name,
            { name: t.jacket, text: show.mass(massG), working: () => workings().mass },
            { name: t.potLife, text: messages.pots.minutes(Math.round(potMin)), working: () => workings().pot },
            { name: t.waits, text: show.hours(waitMin), working: () => workings().wait },
            { name: t.shrinks, text: t.percent(shrinkPercent), working: () => workings().shrink },
            { name: t.price, text: show.money(priceMinor), working: () => workings().price },
            id === own ? (
              t.chosen
            ) : (
              <Take key="take" name={entryOf(id).name} onClick={() => edit((plan) => withSilicone(plan, null, id))} />
            ),
          ],
        }))}
      />
      <details className="mt-1 text-sm">
        <summary className="cursor-pointer list-none decoration-dotted underline-offset-4 hover:underline">
          {t.block(show.mass(block.massG))}
        </summary>
        <WorkingNote working={block.working} />
      </details>
    </section>
  );
}
