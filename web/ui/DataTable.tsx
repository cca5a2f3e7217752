import {
  type ColumnDef,
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from "@tanstack/react-table";
import { ArrowDown, ArrowUp } from "lucide-react";
import { type ReactNode, useState } from "react";

/** A column: what it sorts and is copied by, and how it is shown. */
export interface Column<Row> {
  readonly id: string;
  readonly name: string;
  readonly value: (row: Row) => string | number;
  readonly show?: (row: Row) => ReactNode;
  readonly right?: boolean;
  readonly widthPx?: number;
  /** Only goes with what is copied; it is seen in another column. */
  readonly copied?: boolean;
}

/** A table that is sorted by a click on a head, filtered by typing, widened at its heads, and copied into a spreadsheet. */
export function DataTable<Row>({
  rows,
  columns,
  keyOf,
  filterLabel,
  detail,
}: {
  rows: readonly Row[];
  columns: readonly Column<Row>[];
  keyOf: (row: Row) => string;
  filterLabel: string;
  /** What opens under a row. */
  detail?: (row: Row) => ReactNode;
}) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const [filter, setFilter] = useState("");
  const [open, setOpen] = useState<string | null>(null);
  const [copied, setCopied] = useState(false);
  const seen = columns.filter(({ copied: only }) => !only);
  const table = useReactTable({
    data: rows as Row[],
    columns: seen.map(
      ({ id, name, value, show, widthPx = 140 }): ColumnDef<Row> => ({
        id,
        header: name,
        accessorFn: value,
        cell: ({ row }) => (show ? show(row.original) : String(value(row.original))),
        size: widthPx,
      }),
    ),
    state: { sorting, globalFilter: filter },
    onSortingChange: setSorting,
    onGlobalFilterChange: setFilter,
    columnResizeMode: "onChange",
    getRowId: keyOf,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const shownRows = table.getRowModel().rows;
  const copy = async () => {
    const lines = [
      columns.map(({ name }) => name),
      ...shownRows.map(({ original }) => columns.map(({ value }) => String(value(original)))),
    ];
    await navigator.clipboard?.writeText(lines.map((line) => line.join("\t")).join("\n")).catch(() => undefined);
    setCopied(true);
  };
  return (
    <div>
      <div className="flex items-center gap-2 pb-2">
        <input
          type="search"
          className="input input-sm w-56"
          placeholder={filterLabel}
          aria-label={filterLabel}
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
        />
        <button type="button" className="btn btn-sm" onClick={() => void copy()}>
          {copied ? "Copied" : "Copy the table"}
        </button>
      </div>
      <table className="text-sm" style={{ width: table.getTotalSize() }}>
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id} className="border-b-2 border-base-content/70">
              {group.headers.map((header, k) => {
                const sorted = header.column.getIsSorted();
                const SortMark = sorted === "desc" ? ArrowDown : ArrowUp;
                return (
                  <th
                    key={header.id}
                    style={{ width: header.getSize() }}
                    className={`relative py-1 pr-3 font-medium ${seen[k].right ? "text-right" : "text-left"}`}
                    aria-sort={sorted === "asc" ? "ascending" : sorted === "desc" ? "descending" : "none"}
                  >
                    <button type="button" className="cursor-pointer" onClick={header.column.getToggleSortingHandler()}>
                      {flexRender(header.column.columnDef.header, header.getContext())}
                      {sorted && <SortMark aria-hidden="true" size={14} className="ml-1 inline" />}
                    </button>
                    <span
                      aria-hidden="true"
                      className="absolute top-1 right-0 h-5 w-1 cursor-col-resize touch-none bg-base-300"
                      onMouseDown={header.getResizeHandler()}
                      onTouchStart={header.getResizeHandler()}
                    />
                  </th>
                );
              })}
            </tr>
          ))}
        </thead>
        {shownRows.map((row) => (
          <tbody key={row.id}>
            <tr className="border-b border-base-300">
              {row.getVisibleCells().map((cell, k) => (
                <td key={cell.id} className={`py-1.5 pr-3 align-baseline ${seen[k].right ? "text-right" : ""}`}>
                  {k === 0 && detail ? (
                    <button
                      type="button"
                      className="cursor-pointer text-left underline decoration-dotted underline-offset-4"
                      aria-expanded={open === row.id}
                      onClick={() => setOpen(open === row.id ? null : row.id)}
                    >
                      {flexRender(cell.column.columnDef.cell, cell.getContext())}
                    </button>
                  ) : (
                    flexRender(cell.column.columnDef.cell, cell.getContext())
                  )}
                </td>
              ))}
            </tr>
            {detail && open === row.id && (
              <tr className="border-b border-base-300 bg-base-200">
                <td colSpan={seen.length} className="px-3 py-2">
                  {detail(row.original)}
                </td>
              </tr>
            )}
          </tbody>
        ))}
      </table>
      {shownRows.length === 0 && <p className="quiet py-3 text-sm">Nothing in the table has that in it.</p>}
    </div>
  );
}
