import { unparse } from "papaparse";
import { entryOf, MATERIAL_USES, type MaterialId, materialName, nameOf } from "../../../core/materials/catalogue.ts";
import { isOwn } from "../../../core/materials/entries/own.ts";
import type { MaterialLine } from "../../../core/materials/property.ts";
import { type Store, storedEntries } from "../../../core/materials/stock.ts";
import { withMaterial } from "../../../core/plan/document/choose.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { type BuyingRow, buyingMinor } from "../../../core/takeoff/buying.ts";
import { usePlan } from "../../document/planStore.ts";
import { useSaveStore, useStore } from "../../lib/queries.ts";
import { saveFile } from "../../lib/saveFile.ts";
import { type Show, useShow } from "../../lib/show.ts";
import { PacksForm } from "../../store/PacksForm.tsx";
import { type Column, DataTable } from "../../ui/DataTable.tsx";
import { WorkingNote } from "../../ui/Figure.tsx";
import type { StationProps } from "../station.ts";
import { MaterialSelect } from "./MaterialSelect.tsx";
import { messages } from "./messages.ts";
import { amountText, packText } from "./quantity.ts";
import { useBuying } from "./useBuying.ts";

const t = messages.buyingTable;
const GROUPS: Readonly<Record<MaterialLine["group"], string>> = {
  jacket: t.jacket,
  shell: t.shell,
  sundries: t.sundries,
};

const takenOf = ({ taken }: BuyingRow) => taken.reduce((sum, { amount }) => sum + amount, 0);

/** What is to be bought, as a table in the middle of the page: sorted, filtered, copied, each figure with how it came about. */
export function BuyingTable(props: StationProps) {
  const show = useShow();
  const rows = useBuying(props);
  if (!props.planning.bundle) return null;
  const { edition } = props.document.brief;
  const { own } = props.document.materials;
  const named = ({ material }: BuyingRow) => nameOf(material, own);
  const priceMinor = buyingMinor(rows);
  const amount = (row: BuyingRow, value: number) => amountText(value, row.unit, show);
  const columns: readonly Column<BuyingRow>[] = [
    { id: "material", name: t.material, value: named, widthPx: 190 },
    { id: "group", name: t.forWhat, value: ({ lines }) => GROUPS[lines[0].group], widthPx: 78 },
    {
      id: "quantity",
      name: t.quantity,
      value: ({ need }) => Number(need.toFixed(3)),
      show: (row) => <span className="font-medium whitespace-nowrap">{amount(row, row.need)}</span>,
      right: true,
      widthPx: 82,
    },
    { id: "unit", name: t.unit, value: ({ unit }) => unit, copied: true },
    {
      id: "stock",
      name: t.inStore,
      value: takenOf,
      show: (row) => (row.taken.length > 0 ? amount(row, takenOf(row)) : ""),
      right: true,
      widthPx: 82,
    },
    {
      id: "packs",
      name: t.toBuy,
      value: (row) => packText(row, show),
      show: (row) => (
        <>
          {packText(row, show)}
          {row.supplier && row.missing > 0 && <span className="quiet block text-xs">{row.supplier}</span>}
        </>
      ),
      widthPx: 150,
    },
    {
      id: "price",
      name: t.price,
      value: ({ bought }) => (bought?.priceMinor ?? 0) / 100,
      show: ({ bought }) => (bought && bought.priceMinor > 0 ? show.money(bought.priceMinor) : ""),
      right: true,
      widthPx: 84,
    },
    { id: "supplier", name: t.from, value: ({ supplier }) => supplier, copied: true },
  ];
  return (
    <section aria-label={t.buyingList}>
      <header className="flex items-baseline justify-between gap-3 pb-3">
        <h2 className="text-xl font-semibold">
          {t.buyingList}{" "}
          <span className="quiet text-sm font-normal">
            {t.inAll(show.money(priceMinor), show.money(Math.round(priceMinor / edition)), edition)}
          </span>
        </h2>
        <span className="flex gap-1">
          <button type="button" className="btn btn-sm" onClick={() => saveList(props.piece.name, rows, named, show)}>
            {t.csv}
          </button>
          <button type="button" className="btn btn-sm" onClick={() => window.print()}>
            {t.print}
          </button>
        </span>
      </header>
      <DataTable
        rows={rows}
        columns={columns}
        keyOf={({ material }) => material}
        filterLabel={t.find}
        detail={(row) => <Detail row={row} document={props.document} show={show} />}
      />
      <p className="quiet mt-2 text-sm">{t.prices}</p>
    </section>
  );
}

/** How a need came about, use by use, and what of it is in store. */
function Detail({ row, document, show }: { row: BuyingRow; document: PlanDocument; show: Show }) {
  const edit = usePlan((plan) => plan.edit);
  const { own, instead } = document.materials;
  const usual = (Object.keys(instead) as MaterialId[]).find((id) => instead[id] === row.material) ?? row.material;
  const isSilicone = entryOf(row.material, own).group === "silicones";
  return (
    <>
      {!isOwn(usual) && !isSilicone && (
        <p className="mb-2 text-sm">
          <span className="quiet">{t.instead(nameOf(usual))}</span>{" "}
          <MaterialSelect
            className="select-xs w-64"
            label={t.instead(nameOf(usual))}
            usual={usual}
            value={row.material}
            kept={own}
            onChoose={(id, entry) => edit((plan) => withMaterial(plan, usual, id ?? usual, entry))}
          />
        </p>
      )}
      {row.lines.map((line) => (
        <div key={line.use}>
          {row.lines.length > 1 && (
            <p className="mt-1 text-sm font-medium">{MATERIAL_USES[line.use] || materialName(line, own)}</p>
          )}
          <WorkingNote working={line.working} />
        </div>
      ))}
      {row.taken.map(({ lot, amount, state }) => (
        <p key={lot.id} className={`mt-1 text-sm ${state.kind === "old" ? "text-warning" : ""}`}>
          {t.taken(amountText(amount, row.unit, show), lot.place)} {state.kind === "old" && t.old(state.months)}
        </p>
      ))}
      {row.leftOver > 0 && <p className="quiet mt-1 text-sm">{t.leftOver(amountText(row.leftOver, row.unit, show))}</p>}
      <Prices material={row.material} />
    </>
  );
}

/** What a material costs the workshop, changed where it is read: it is kept in the store. */
function Prices({ material }: { material: string }) {
  const { data } = useStore();
  const save = useSaveStore();
  const entry = data && storedEntries(data.store).find(({ id }) => id === material);
  // What the store knows no more is bought at the prices the plan has kept.
  if (!entry) return null;
  const change = (store: Store) => save.mutate({ store, revision: data.revision });
  return (
    <div className="mt-3 max-w-md">
      <PacksForm entry={entry} store={data.store} change={change} />
      {save.error && (
        <p role="alert" className="mt-1 text-sm text-error">
          {save.error.message}
        </p>
      )}
    </div>
  );
}

function saveList(pieceName: string, rows: readonly BuyingRow[], itemOf: (row: BuyingRow) => string, show: Show): void {
  const table = rows.map((row) => ({
    item: itemOf(row),
    for: row.lines[0].group,
    quantity: Number(row.need.toFixed(3)),
    unit: row.unit,
    // As it is shown, in the units of whoever reads it.
    as_shown: amountText(row.need, row.unit, show),
    packs: packText(row, show),
    in_store: Number(takenOf(row).toFixed(3)),
    to_buy: Number((row.bought?.amount ?? row.missing).toFixed(3)),
    price: ((row.bought?.priceMinor ?? 0) / 100).toFixed(2),
    from: row.supplier,
  }));
  saveFile(`${pieceName.replace(/[^\w-]+/g, "-").toLowerCase()}-buying-list.csv`, unparse(table), "text/csv");
}
