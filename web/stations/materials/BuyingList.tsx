import { Fragment } from "react";
import { createPortal } from "react-dom";
import { nameOf } from "../../../core/materials/catalogue.ts";
import { CAUTIONS, type CautionId, DEFERENCE } from "../../../core/materials/cautions.ts";
import { layupsInUse } from "../../../core/plan/document/document.ts";
import { shellSystem } from "../../../core/shell/index.ts";
import { type BuyingRow, buyingMinor } from "../../../core/takeoff/buying.ts";
import { longDate } from "../../lib/dates.ts";
import { useShow } from "../../lib/show.ts";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { amountText, packText } from "./quantity.ts";
import { useBuying } from "./useBuying.ts";

/** The list as paper: on the page only when it is printed. */
export function BuyingList({ piece, document, planning }: StationProps) {
  const show = useShow();
  const rows = useBuying({ document, planning });
  const figures = planning.bundle?.figures;
  if (!figures) return null;
  const { report } = figures;
  const systems = [...new Set(layupsInUse(document).map(({ system }) => system))];
  const cautionIds = new Set<CautionId>([
    ...layupsInUse(document).flatMap(({ system }) => shellSystem(system).cautions),
    "thickener-dust",
    "silicone-cure",
  ]);
  return createPortal(
    <article className="paper hidden bg-white p-10 text-black print:block" data-testid="buying-list">
      <header className="flex items-end justify-between border-b-4 border-black pb-2">
        <div>
          <p className="font-stencil">{messages.buyingList.rimefell}</p>
          <h1 className="text-3xl font-semibold">{piece.name}</h1>
          <p>{messages.buyingList.title(longDate(new Date()))}</p>
        </div>
        <p className="text-right">
          {messages.buyingList.sectionsIn(
            report.sections.length,
            systems.map((system) => shellSystem(system).name.toLowerCase()).join(", "),
          )}
          <br />
          {messages.buyingList.jacketIn(show.length(report.jacket.thicknessMm), report.jacket.coats.length)}
        </p>
      </header>
      <table className="mt-6 w-full text-lg">
        <tbody>
          {byTrip(rows).map(({ trip, own }) => (
            <Fragment key={trip}>
              <tr>
                <th colSpan={4} className="pt-4 text-left text-base">
                  {trip}
                </th>
                <th className="pt-4 pr-3 text-right text-base whitespace-nowrap">
                  {buyingMinor(own) > 0 && show.money(buyingMinor(own))}
                </th>
                <th />
              </tr>
              {own.map((row) => (
                <tr key={row.material} className="border-b border-black/40">
                  <td className="w-8 py-2">
                    <span className="inline-block h-5 w-5 border-2 border-black" />
                  </td>
                  <td className="py-2">{nameOf(row.material, document.materials.own)}</td>
                  <td className="py-2 pr-3 text-right font-semibold whitespace-nowrap">
                    {amountText(row.need, row.unit, show)}
                  </td>
                  <td className="py-2 pr-3 text-right">{packText(row, show)}</td>
                  <td className="py-2 pr-3 text-right text-base whitespace-nowrap">
                    {row.bought && row.bought.priceMinor > 0 && show.money(row.bought.priceMinor)}
                  </td>
                  <td className="w-28 border-l border-black/40 py-2 pl-3 text-sm text-black/60">
                    {messages.buyingList.bought}
                  </td>
                </tr>
              ))}
            </Fragment>
          ))}
        </tbody>
      </table>
      <h2 className="mt-8 mb-1 font-semibold">{messages.buyingList.takeCare}</h2>
      <ul className="list-disc pl-5 text-sm">
        {[...cautionIds].map((id) => (
          <li key={id}>{CAUTIONS[id]}</li>
        ))}
      </ul>
      <p className="mt-3 text-sm">{messages.buyingList.footnote(DEFERENCE)}</p>
      <p className="mt-8 w-64 border-t border-black pt-1 text-sm">{messages.buyingList.sign}</p>
    </article>,
    window.document.body,
  );
}

/** One list a trip: by where it is bought, then what has no such place, then what is there already. */
function byTrip(rows: readonly BuyingRow[]): { readonly trip: string; readonly own: readonly BuyingRow[] }[] {
  const { from, inStore, elsewhere } = messages.buyingList;
  const tripOf = ({ missing, supplier }: BuyingRow) =>
    missing <= 0 ? inStore : supplier === "" ? elsewhere : from(supplier);
  const trips = [...new Set(rows.map(tripOf))];
  const last = (trip: string) => (trip === inStore ? 2 : trip === elsewhere ? 1 : 0);
  return trips
    .sort((a, b) => last(a) - last(b) || a.localeCompare(b))
    .map((trip) => ({ trip, own: rows.filter((row) => tripOf(row) === trip) }));
}
