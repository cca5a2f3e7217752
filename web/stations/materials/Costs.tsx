/** What the mould costs, part by part: every coat, every section, the work between them; and what that is for each cast. */
import { useContext } from "react";
import { entryOf } from "../../../core/materials/catalogue.ts";
import type { Working } from "../../../core/materials/property.ts";
import { buyingMinor } from "../../../core/takeoff/buying.ts";
import type { CostPart } from "../../../core/takeoff/cost.ts";
import { SettingsContext, useShow } from "../../lib/show.ts";
import { WorkingNote } from "../../ui/Figure.tsx";
import type { StationProps } from "../station.ts";
import { Head } from "./Head.tsx";
import { messages } from "./messages.ts";
import { useBuying } from "./useBuying.ts";

const t = messages.costs;
const GROUPS: readonly (readonly [string, readonly CostPart["kind"][]])[] = [
  [t.jacket, ["coat", "fills", "keys"]],
  [t.shell, ["section"]],
  [t.rest, ["sundries", "work", "finish"]],
];

export function Costs(props: StationProps) {
  const show = useShow();
  const { rates } = useContext(SettingsContext);
  const bought = useBuying(props);
  const { document, planning } = props;
  const takeoff = planning.bundle?.figures.takeoff;
  if (!takeoff) return <p className="quiet">{t.waiting}</p>;
  const { costParts, costMinor, units } = takeoff;
  const { edition } = document.brief;
  const money = (minor: number) => (minor > 0 ? show.money(Math.round(minor)) : "");
  const sum = (parts: readonly CostPart[], of: "materialsMinor" | "handsMinor") =>
    parts.reduce((total, part) => total + part[of], 0);
  /** What of each material, at what a unit of it costs; and the hours. */
  const workingOf = ({ takes, handsMin }: CostPart): Working => ({
    formula: t.formula,
    inputs: [
      ...takes.map(({ material, quantity }) => {
        const { name, unit } = entryOf(material, document.materials.own);
        return { name, value: quantity, unit: t.at(unit, show.money(Math.round(units[material] ?? 0))) };
      }),
      ...(handsMin > 0 ? [{ name: t.hands, value: handsMin / 60, unit: t.at("h", show.money(rates.hourMinor)) }] : []),
    ],
  });
  const cells = (materialsMinor: number, handsMinor: number) => (
    <>
      <td className="text-right">{money(materialsMinor)}</td>
      <td className="text-right">{money(handsMinor)}</td>
      <td className="text-right">{money(materialsMinor + handsMinor)}</td>
    </>
  );
  return (
    <section aria-label={t.title}>
      <h2 className="pb-2 text-xl font-semibold">{t.title}</h2>
      <table className="table table-sm max-w-3xl" data-testid="costs">
        <Head names={[t.part, t.materials, t.hands, t.together]} right={3} />
        {GROUPS.map(([name, kinds]) => {
          const own = costParts.filter(({ kind }) => kinds.includes(kind));
          if (own.length === 0) return null;
          return (
            <tbody key={name}>
              <tr className="bg-base-200 font-semibold">
                <td>{name}</td>
                {cells(sum(own, "materialsMinor"), sum(own, "handsMinor"))}
              </tr>
              {own.map((part) => {
                const { kind, number, name: work, materialsMinor, handsMinor } = part;
                return (
                  <tr key={`${kind} ${number} ${work}`} className="align-top">
                    <td className="pl-6">
                      <details>
                        <summary className="cursor-pointer list-none decoration-dotted underline-offset-4 hover:underline">
                          {t.kinds[kind](number, work)}
                        </summary>
                        <WorkingNote working={workingOf(part)} />
                      </details>
                    </td>
                    {cells(materialsMinor, handsMinor)}
                  </tr>
                );
              })}
            </tbody>
          );
        })}
        <tbody className="border-t-2 border-base-content/70 font-semibold">
          <tr>
            <td>{t.inAll}</td>
            {cells(sum(costParts, "materialsMinor"), sum(costParts, "handsMinor"))}
          </tr>
          <tr>
            <td colSpan={3}>{t.perCast(edition)}</td>
            <td className="text-right">{money(costMinor / edition)}</td>
          </tr>
        </tbody>
      </table>
      <p className="quiet mt-2 text-sm">
        {t.by} {t.packs(show.money(buyingMinor(bought)))}
      </p>
    </section>
  );
}
