/** Packs as people type them: "5 at 126; 20 at 456". */
import type { Pack } from "../../core/materials/entries/entry.ts";

export function packsText(packs: readonly Pack[]): string {
  return packs.map(({ amount, priceMinor }) => `${amount} at ${Number((priceMinor / 100).toFixed(2))}`).join("; ");
}

const PACK = /^\s*(\d+(?:[.,]\d+)?)\s*(?:at|@)\s*(\d+(?:[.,]\d{1,2})?)\s*$/;

/** @returns null where it cannot be read */
export function readPacks(text: string): Pack[] | null {
  const packs = text
    .split(";")
    .filter((part) => part.trim() !== "")
    .map((part): Pack | null => {
      const found = PACK.exec(part);
      if (!found) return null;
      const [amount, price] = [found[1], found[2]].map((figure) => Number(figure.replace(",", ".")));
      return amount > 0 ? { amount, priceMinor: Math.round(price * 100) } : null;
    });
  return packs.every((pack) => pack !== null) ? packs : null;
}
