import { unparse } from "papaparse";
import { materialName } from "../../../core/materials/catalogue.ts";
import type { MaterialLine } from "../../../core/materials/property.ts";
import { useShow } from "../../lib/show.ts";
import { type Column, DataTable } from "../../ui/DataTable.tsx";
import { WorkingNote } from "../../ui/Figure.tsx";
import type { StationProps } from "../station.ts";
import { quantityText } from "./quantity.ts";

const GROUPS: Readonly<Record<MaterialLine["group"], string>> = {
  jacket: "Jacket",
  shell: "Shell",
  sundries: "Sundries",
};

/** What is to be bought, as a table in the middle of the page: sorted, filtered, copied, each figure with how it came about. */
export function BuyingTable({ piece, planning }: StationProps) {
  const show = useShow();
  const lines = planning.bundle?.figures.takeoff.materials;
  if (!lines) return null;
  const columns: readonly Column<MaterialLine>[] = [
    { id: "material", name: "Material", value: materialName, widthPx: 290 },
    { id: "group", name: "For", value: ({ group }) => GROUPS[group], widthPx: 90 },
    {
      id: "quantity",
      name: "Quantity",
      value: ({ quantity }) => Number(quantity.toFixed(3)),
      show: (line) => <span className="font-medium whitespace-nowrap">{quantityText(line, show)}</span>,
      right: true,
      widthPx: 120,
    },
    { id: "unit", name: "Unit", value: ({ unit }) => unit, copied: true },
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
    <section className="px-6 py-5 pb-56" aria-label="Buying list">
      <header className="flex items-baseline justify-between gap-3 pb-3">
        <h2 className="text-xl font-semibold">Buying list</h2>
        <span className="flex gap-1">
          <button type="button" className="btn btn-sm" onClick={saveCsv}>
            CSV
          </button>
          <button type="button" className="btn btn-sm" onClick={() => window.print()}>
            Print
          </button>
        </span>
      </header>
      <DataTable
        rows={lines}
        columns={columns}
        keyOf={({ material, use }) => `${material} ${use}`}
        filterLabel="Find in the list"
        detail={({ working }) => <WorkingNote working={working} />}
      />
    </section>
  );
}
