import { type ReactNode, useState } from "react";
import type { Working } from "../../core/materials/property.ts";
import { WorkingNote } from "./Figure.tsx";

/** A cell with a figure that opens to how it came about. */
export interface OpenFigure {
  /** What it is called, for who does not see its column. */
  readonly name: string;
  readonly text: string;
  readonly working: () => Working;
}

export interface OpenRow {
  readonly id: string;
  /** Figures open; anything else is shown as it is. */
  readonly cells: readonly (ReactNode | OpenFigure)[];
  /** Is it the one that is chosen? */
  readonly isChosen?: boolean;
}

function isFigure(cell: ReactNode | OpenFigure): cell is OpenFigure {
  return typeof cell === "object" && cell !== null && "working" in cell;
}

/** A plain table whose figures open, each under its row, to how they came about. */
export function OpenTable({
  heads,
  rows,
  testId,
  className = "",
}: {
  heads: readonly string[];
  rows: readonly OpenRow[];
  testId: string;
  className?: string;
}) {
  const [open, setOpen] = useState<{ readonly row: string; readonly name: string } | null>(null);
  return (
    <table className={`table table-xs ${className}`} data-testid={testId}>
      <thead>
        <tr>
          {heads.map((head, k) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: columns stand where they stand.
            <th key={k} className="px-1.5 text-base-content">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      {rows.map(({ id, cells, isChosen = false }) => {
        const figures = cells.filter(isFigure);
        const shown = open?.row === id ? figures.find(({ name }) => name === open.name) : undefined;
        return (
          <tbody key={id}>
            <tr className={isChosen ? "bg-base-200 font-medium" : ""}>
              {cells.map((cell, k) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: columns stand where they stand.
                <td key={k} className={k === 0 ? "" : "whitespace-nowrap"}>
                  {isFigure(cell) ? (
                    <button
                      type="button"
                      className="cursor-pointer underline decoration-dotted underline-offset-4"
                      aria-expanded={cell === shown}
                      aria-label={`${cell.name}: ${cell.text}`}
                      onClick={() => setOpen(cell === shown ? null : { row: id, name: cell.name })}
                    >
                      {cell.text}
                    </button>
                  ) : (
                    cell
                  )}
                </td>
              ))}
            </tr>
            {shown && (
              <tr>
                <td colSpan={heads.length}>
                  <p className="font-medium">
                    {shown.name}: {shown.text}
                  </p>
                  <div className="max-w-md">
                    <WorkingNote working={shown.working()} />
                  </div>
                </td>
              </tr>
            )}
          </tbody>
        );
      })}
    </table>
  );
}
