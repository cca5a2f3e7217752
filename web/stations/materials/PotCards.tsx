/** The weigh-out cards as paper: on the page only when they are printed, to be cut apart and taped over the bench. */
import { createPortal } from "react-dom";
import { DEFERENCE } from "../../../core/materials/cautions.ts";
import { useShow } from "../../lib/show.ts";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { amountOf, leftOverText, stepName, stirText } from "./PotsTable.tsx";
import { usePots } from "./usePots.ts";

const t = messages.pots;

export function PotCards(props: StationProps) {
  const show = useShow();
  const rows = usePots(props).filter(({ pots }) => pots.count > 0);
  const { piece, document } = props;
  const { temperatureC, scaleStepG } = document.mixing;
  return createPortal(
    <article className="paper hidden bg-white p-8 text-black print:block" data-testid="pot-cards">
      <h1 className="border-b-4 border-black pb-1 text-2xl font-semibold">
        {piece.name}: {t.title.toLowerCase()}, {t.at(show.temperature(temperatureC))}
      </h1>
      <div className="mt-4 grid grid-cols-2 gap-4">
        {rows.map((row) => (
          <section key={stepName(row)} className="break-inside-avoid border-2 border-black p-3">
            <h2 className="text-lg font-semibold">{stepName(row)}</h2>
            <p>
              {row.mixture.name}: {t.times(row.pots.count, show.mass(row.pots.eachG))}
            </p>
            <table className="mt-1 w-full">
              <tbody>
                {row.card.map(({ name, g, runningG, drops }) => (
                  <tr key={name} className="border-t border-black/40">
                    <td>{name}</td>
                    <td className="text-right font-semibold">{amountOf(g, drops, show.weighed(g, scaleStepG))}</td>
                    <td className="pl-3 text-right text-sm">
                      {runningG === null ? t.alone : show.weighed(runningG, scaleStepG)}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="mt-1 text-sm">
              {row.potMin === null ? t.never : t.within(Math.round(row.potMin))}{" "}
              {"☐ ".repeat(Math.min(24, row.pots.count))}
            </p>
            <p className="text-sm">
              {leftOverText(row, document.jacket.coats.length, show)} {row.mixture.hastens ? "" : stirText(row)}
            </p>
          </section>
        ))}
      </div>
      <p className="mt-3 text-sm">{DEFERENCE}</p>
    </article>,
    window.document.body,
  );
}
