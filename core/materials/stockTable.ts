/** Stock as a table of text: out, and in again with errors by line and what would change. */
import Papa from "papaparse";
import type { Lot, StoredEntry } from "./stock.ts";

const HEAD = ["lot", "material", "amount", "unit", "opened", "expires", "place"] as const;

export function stockCsv(lots: readonly Lot[], entries: readonly StoredEntry[]): string {
  const unitOf = (id: string) => entries.find((entry) => entry.id === id)?.unit ?? "";
  const rows = lots.map(({ id, material, amount, openedOn, expiresOn, place }) => ({
    lot: id,
    material,
    amount,
    unit: unitOf(material),
    opened: openedOn ?? "",
    expires: expiresOn ?? "",
    place,
  }));
  return `${Papa.unparse({ fields: [...HEAD], data: rows })}\n`;
}

export interface LineProblem {
  /** As a spreadsheet counts it: the head is the first. */
  readonly line: number;
  readonly what: string;
}

export interface ReadStock {
  readonly lots: readonly Lot[];
  readonly problems: readonly LineProblem[];
  /** What comes, what changes and what stays as it is; nothing goes that is not named. */
  readonly comes: readonly Lot[];
  readonly changes: readonly { readonly from: Lot; readonly to: Lot }[];
  readonly same: number;
}

const DATE = /^\d{4}-\d{2}-\d{2}$/;
/** No longer list is read. */
const MOST_LINES = 2000;

/**
 * Reads a table against the stock as it is. Lots are told apart by their name; a line without one is a new lot.
 * @param newId names a lot that has no name
 */
export function readStock(
  text: string,
  lots: readonly Lot[],
  entries: readonly StoredEntry[],
  newId: (line: number) => string,
): ReadStock {
  const { data } = Papa.parse<Record<string, string | undefined>>(text.trim(), {
    header: true,
    skipEmptyLines: true,
    transformHeader: (head) => head.trim().toLowerCase(),
  });
  const problems: LineProblem[] = [];
  if (data.length > MOST_LINES)
    problems.push({ line: 1, what: `There are more than ${MOST_LINES} lines. Take fewer at once.` });
  const read = data.slice(0, MOST_LINES).flatMap((row, k): Lot[] => {
    const line = k + 2;
    const lot = lotOf(row, line, entries, newId);
    if (typeof lot !== "string") return [lot];
    problems.push({ line, what: lot });
    return [];
  });
  const comes: Lot[] = [];
  const changes: { from: Lot; to: Lot }[] = [];
  let same = 0;
  for (const lot of read) {
    const held = lots.find(({ id }) => id === lot.id);
    if (!held) comes.push(lot);
    else if (JSON.stringify(ordered(held)) === JSON.stringify(ordered(lot))) same++;
    else changes.push({ from: held, to: lot });
  }
  const named = new Map(read.map((lot) => [lot.id, lot]));
  return { lots: [...lots.map((lot) => named.get(lot.id) ?? lot), ...comes], problems, comes, changes, same };
}

const ordered = ({ id, material, amount, openedOn, expiresOn, place }: Lot) => [
  id,
  material,
  amount,
  openedOn,
  expiresOn,
  place,
];

/** @returns the lot, or what is wrong with its line */
function lotOf(
  row: Record<string, string | undefined>,
  line: number,
  entries: readonly StoredEntry[],
  newId: (line: number) => string,
): Lot | string {
  const of = (name: (typeof HEAD)[number]) => (row[name] ?? "").trim();
  const wanted = of("material");
  const entry = entries.find(({ id, name }) => id === wanted || name.toLowerCase() === wanted.toLowerCase());
  if (!entry) return wanted === "" ? "There is no material." : `There is no material "${wanted}" in the catalogue.`;
  const amount = Number(of("amount").replace(",", "."));
  if (of("amount") === "" || !(amount >= 0)) return `The amount "${of("amount")}" is no number of ${entry.unit}.`;
  if (of("unit") !== "" && of("unit") !== entry.unit)
    return `${entry.name} is counted in ${entry.unit}, not in ${of("unit")}.`;
  for (const name of ["opened", "expires"] as const)
    if (of(name) !== "" && (!DATE.test(of(name)) || Number.isNaN(Date.parse(of(name)))))
      return `The date "${of(name)}" is not like 2026-11-30.`;
  return {
    id: of("lot") || newId(line),
    material: entry.id,
    amount,
    openedOn: of("opened") || null,
    expiresOn: of("expires") || null,
    place: of("place").slice(0, 120),
  };
}
