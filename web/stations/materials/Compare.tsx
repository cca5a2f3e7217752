/** The shell systems and the silicones on this very piece, side by side; one is switched to at a click. */
import { X } from "lucide-react";
import { lazy, Suspense, useContext, useMemo, useState } from "react";
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
  type ComparedShell,
  type ComparedSilicone,
  compareJackets,
  compareShells,
  compareSilicones,
  pouredBlockG,
} from "../../../core/takeoff/compareShells.ts";
import { coatMinor } from "../../../core/takeoff/cost.ts";
import { usePlan } from "../../document/planStore.ts";
import { today } from "../../lib/dates.ts";
import { SettingsContext, useShow } from "../../lib/show.ts";
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
      ),
      blockG: pouredBlockG(sizeMm, volumeMm3, siliconeOf(silicone, own).densityGPerCm3),
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
      <Silicones silicones={compared.silicones} own={document.jacket.silicone} blockG={compared.blockG} />
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
  return (
    <section aria-label={t.shells}>
      <h2 className="mb-1 text-xl font-semibold">{t.shells}</h2>
      <div className="overflow-x-auto">
        <table className="table table-xs [&_td]:px-1.5" data-testid="compared-shells">
          <thead>
            <tr>
              {heads.map((head) => (
                <th key={head} className="px-1.5 text-base-content">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shells.map((shell) => {
              const { edges, cautions } = shellSystem(shell.system);
              const { id, name } = shell;
              const variant = variants.find((each) => each.id === id);
              const isOwn = id === document.shell.system;
              return (
                <tr key={id} className={isOwn ? "bg-base-200 font-medium" : ""}>
                  <td>
                    {name}
                    <span className="quiet block font-normal" title={cautions.map((each) => CAUTIONS[each]).join(" ")}>
                      {t.edgesAre(edges.toLowerCase())}, {cautions.flatMap((each) => SHORT[each] ?? []).join(", ")}
                    </span>
                  </td>
                  <td className="whitespace-nowrap">
                    {isOwn ? (
                      t.chosen
                    ) : (
                      <button
                        type="button"
                        className="btn btn-xs whitespace-nowrap"
                        aria-label={t.switchTo(name)}
                        onClick={() => {
                          const { system, figures, order } = variant ?? typicalLayup(id);
                          take({ system, figures, order });
                        }}
                      >
                        {t.take}
                      </button>
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
                  </td>
                  <td className="whitespace-nowrap">{show.length(Math.round(10 * shell.thicknessMm) / 10)}</td>
                  <td className="whitespace-nowrap">{show.mass(shell.heaviestG)}</td>
                  <td className="whitespace-nowrap">{show.mass(shell.totalG)}</td>
                  <td className="whitespace-nowrap">{show.hours(shell.handsMin)}</td>
                  <td className="whitespace-nowrap">{t.days(shell.days.toFixed(1))}</td>
                  <td className="whitespace-nowrap">{show.money(shell.materialsMinor)}</td>
                  <td className="whitespace-nowrap">{show.money(shell.handsMinor)}</td>
                  <td className="whitespace-nowrap">{show.length(10 * Math.round(shell.spanMm / 10))}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="quiet mt-1 mb-3 text-xs">{t.how}</p>
    </section>
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
      <table className="table table-xs max-w-xl" data-testid="compared-jackets">
        <thead>
          <tr>
            {[t.thickness, t.jacketOf, t.price, t.gives].map((head) => (
              <th key={head} className="text-base-content">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {jackets.map(({ thicknessMm, siliconeG, priceMinor, giveMm }) => (
            <tr key={thicknessMm} className={Math.abs(thicknessMm - ownMm) < 0.05 ? "bg-base-200 font-medium" : ""}>
              <td>{show.length(thicknessMm)}</td>
              <td className="whitespace-nowrap">{show.mass(siliconeG)}</td>
              <td className="whitespace-nowrap">{show.money(Math.round(priceMinor))}</td>
              <td>{show.length(Math.round(10 * giveMm) / 10)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet mt-1 text-xs">{t.jacketsHow}</p>
    </section>
  );
}

interface SiliconesProps {
  readonly silicones: readonly ComparedSilicone[];
  readonly own: SiliconeKey;
  readonly blockG: number;
}

function Silicones({ silicones, own, blockG }: SiliconesProps) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  return (
    <section aria-label={t.silicones} className="mt-6">
      <h2 className="mb-1 text-xl font-semibold">{t.silicones}</h2>
      <table className="table table-xs" data-testid="compared-silicones">
        <thead>
          <tr>
            {[t.silicone, t.jacket, t.potLife, t.waits, t.shrinks, t.price].map((head) => (
              <th key={head} className="text-base-content">
                {head}
              </th>
            ))}
            <th />
          </tr>
        </thead>
        <tbody>
          {silicones.map(({ id, massG, potMin, waitMin, shrinkPercent, priceMinor }) => (
            <tr key={id} className={id === own ? "bg-base-200 font-medium" : ""}>
              <td>{entryOf(id).name}</td>
              <td className="whitespace-nowrap">{show.mass(massG)}</td>
              <td>{messages.pots.minutes(Math.round(potMin))}</td>
              <td className="whitespace-nowrap">{show.hours(waitMin)}</td>
              <td>{t.percent(shrinkPercent)}</td>
              <td className="whitespace-nowrap">{show.money(priceMinor)}</td>
              <td>
                {id === own ? (
                  t.chosen
                ) : (
                  <button
                    type="button"
                    className="btn btn-xs"
                    aria-label={t.switchTo(entryOf(id).name)}
                    onClick={() => edit((plan) => withSilicone(plan, null, id))}
                  >
                    {t.take}
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm">{t.block(show.mass(blockG))}</p>
    </section>
  );
}
