/** The shell systems and the silicones on this very piece, side by side; one is switched to at a click. */
import { lazy, Suspense, useContext, useMemo } from "react";
import { entryOf, type SiliconeId } from "../../../core/materials/catalogue.ts";
import { CAUTIONS } from "../../../core/materials/cautions.ts";
import { jacketTotalsOf } from "../../../core/plan/results/figures.ts";
import { shellSystem } from "../../../core/shell/index.ts";
import {
  type ComparedShell,
  type ComparedSilicone,
  compareShells,
  compareSilicones,
  pouredBlockG,
} from "../../../core/takeoff/compareShells.ts";
import { usePlan } from "../../document/planStore.ts";
import { today } from "../../lib/dates.ts";
import { SettingsContext, useShow } from "../../lib/show.ts";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { StoreContext } from "./storeHeld.ts";

const t = messages.compare;
const ShellChart = lazy(() => import("./ShellChart.tsx"));

export function Compare({ document, planning }: StationProps) {
  const { rates } = useContext(SettingsContext);
  const store = useContext(StoreContext);
  const report = planning.bundle?.figures.report;
  const { fixings } = planning;
  const compared = useMemo(() => {
    if (!report) return null;
    const jacket = jacketTotalsOf(report, document.jacket.silicone);
    const totals = { jacket, parting: report, rates, store, today: today(), ...(fixings ? { fixings } : {}) };
    const { sizeMm, volumeMm3 } = report.piece;
    return {
      shells: compareShells(document, totals),
      silicones: compareSilicones(document, totals),
      blockG: pouredBlockG(sizeMm, volumeMm3, document.jacket.silicone),
    };
  }, [report, document, rates, store, fixings]);
  if (!compared) return <p className="quiet">{messages.pots.waiting}</p>;
  return (
    <>
      <Shells shells={compared.shells} own={document.shell.system} />
      <Suspense fallback={<div className="h-56" />}>
        <ShellChart shells={compared.shells} />
      </Suspense>
      <Silicones silicones={compared.silicones} own={document.jacket.silicone} blockG={compared.blockG} />
    </>
  );
}

function Shells({ shells, own }: { shells: readonly ComparedShell[]; own: string }) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const heads = [
    ...[t.system, "", t.thickness, t.heaviest, t.total],
    ...[t.hands, t.ready, t.materials, t.handsCost, t.spans],
  ];
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
              const { name, edges, cautions } = shellSystem(shell.id);
              return (
                <tr key={shell.id} className={shell.id === own ? "bg-base-200 font-medium" : ""}>
                  <td title={cautions.map((id) => CAUTIONS[id]).join(" ")}>
                    {name}
                    <span className="quiet block font-normal">{t.edgesAre(edges.toLowerCase())}</span>
                  </td>
                  <td>
                    {shell.id === own ? (
                      t.chosen
                    ) : (
                      <button
                        type="button"
                        className="btn btn-xs whitespace-nowrap"
                        aria-label={t.switchTo(name)}
                        onClick={() =>
                          edit((plan) => ({ ...plan, shell: { ...plan.shell, system: shell.id, figures: {} } }))
                        }
                      >
                        {t.take}
                      </button>
                    )}
                  </td>
                  <td>{show.length(Math.round(10 * shell.thicknessMm) / 10)}</td>
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

interface SiliconesProps {
  readonly silicones: readonly ComparedSilicone[];
  readonly own: SiliconeId;
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
                    onClick={() => edit((plan) => ({ ...plan, jacket: { ...plan.jacket, silicone: id } }))}
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
