/** Packs as people type them: "5 at 126; 20 at 456; 20 at 430 from 3". */
import type { Pack } from "../../core/materials/entries/entry.ts";

export function packsText(packs: readonly Pack[]): string {
  return packs
    .map(
      ({ amount, priceMinor, from }) =>
        `${amount} at ${Number((priceMinor / 100).toFixed(2))}${from === undefined ? "" : ` from ${from}`}`,
    )
    .join("; ");
}

const PACK = /^\s*(\d+(?:[.,]\d+)?)\s*(?:at|@)\s*(\d+(?:[.,]\d{1,2})?)(?:\s+from\s+(\d{1,4}))?\s*$/;

/** @returns null where it cannot be read */
export function readPacks(text: string): Pack[] | null {
  const packs = text
    .split(";")
    .filter((part) => part.trim() !== "")
    .map((part): Pack | null => {
      const found = PACK.exec(part);
      if (!found) return null;
      const [amount, price] = [found[1], found[2]].map((figure) => Number(figure.replace(",", ".")));
      const from = found[3] === undefined ? 1 : Number(found[3]);
      if (!(amount > 0) || from < 1) return null;
      return { amount, priceMinor: Math.round(price * 100), ...(from > 1 ? { from } : {}) };
    });
  return packs.every((pack) => pack !== null) ? packs : null;
}
