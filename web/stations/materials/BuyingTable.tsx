import { unparse } from "papaparse";
import { materialName } from "../../../core/materials/catalogue.ts";
import type { MaterialLine } from "../../../core/materials/property.ts";
import { useShow } from "../../lib/show.ts";
import { type Column, DataTable } from "../../ui/DataTable.tsx";
import { WorkingNote } from "../../ui/Figure.tsx";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { quantityText } from "./quantity.ts";

const GROUPS: Readonly<Record<MaterialLine["group"], string>> = {
  jacket: messages.buyingTable.jacket,
  shell: messages.buyingTable.shell,
  sundries: messages.buyingTable.sundries,
};

/** What is to be bought, as a table in the middle of the page: sorted, filtered, copied, each figure with how it came about. */
export function BuyingTable({ piece, planning }: StationProps) {
  const show = useShow();
  const lines = planning.bundle?.figures.takeoff.materials;
  if (!lines) return null;
  const columns: readonly Column<MaterialLine>[] = [
    { id: "material", name: messages.buyingTable.material, value: materialName, widthPx: 290 },
    { id: "group", name: messages.buyingTable.forWhat, value: ({ group }) => GROUPS[group], widthPx: 90 },
    {
      id: "quantity",
      name: messages.buyingTable.quantity,
      value: ({ quantity }) => Number(quantity.toFixed(3)),
      show: (line) => <span className="font-medium whitespace-nowrap">{quantityText(line, show)}</span>,
      right: true,
      widthPx: 120,
    },
    { id: "unit", name: messages.buyingTable.unit, value: ({ unit }) => unit, copied: true },
  ];
  const saveCsv = () => {
    const rows = lines.map((line) => ({
      item: materialName(line),
      for: line.group,
      quantity: Number(line.quantity.toFixed(3)),
      unit: line.unit,
    }));
    const link = window.document.createElement("a");
    link.href = URL.createObjectURL(new Blob([unparse(rows)], { type: "text/csv" }));
    link.download = `${piece.name.replace(/[^\w-]+/g, "-").toLowerCase()}-buying-list.csv`;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <section className="px-6 py-5 pb-56" aria-label={messages.buyingTable.buyingList}>
      <header className="flex items-baseline justify-between gap-3 pb-3">
        <h2 className="text-xl font-semibold">{messages.buyingTable.buyingList}</h2>
        <span className="flex gap-1">
          <button type="button" className="btn btn-sm" onClick={saveCsv}>
            {messages.buyingTable.csv}
          </button>
          <button type="button" className="btn btn-sm" onClick={() => window.print()}>
            {messages.buyingTable.print}
          </button>
        </span>
      </header>
      <DataTable
        rows={lines}
        columns={columns}
        keyOf={({ material, use }) => `${material} ${use}`}
        filterLabel={messages.buyingTable.find}
        detail={({ working }) => <WorkingNote working={working} />}
      />
    </section>
  );
}
