/**
 * What a material is mixed of as people type it, the base first: "100 base, 5 catalyst"; with densities for whoever measures,
 * "100 base (1.12), 90 hardener (0.98)"; or "1 base (1.12), 1 hardener (0.98) by volume".
 */
import type { MixPartOf } from "../../core/materials/entries/entry.ts";

const BY_VOLUME = /\s+by\s+volume\s*$/i;
const PART = /^\s*(\d+(?:\.\d+)?)\s+([^()]{1,40}?)\s*(?:\((\d+(?:\.\d+)?)\))?\s*$/;

export function mixText(mix: readonly MixPartOf[]): string {
  return mix
    .map(
      ({ parts, name, densityGPerCm3 }) =>
        `${Number(parts.toPrecision(6))} ${name.toLowerCase()}${densityGPerCm3 ? ` (${densityGPerCm3})` : ""}`,
    )
    .join(", ");
}

/** @returns parts by mass; none where nothing is typed; null where it cannot be read, or a volume has no density */
export function readMix(text: string): MixPartOf[] | null {
  if (text.trim() === "") return [];
  const byVolume = BY_VOLUME.test(text);
  const read = text
    .replace(BY_VOLUME, "")
    .split(/[,;]/)
    .map((part): MixPartOf | null => {
      const found = PART.exec(part);
      if (!found) return null;
      const [amount, density] = [Number(found[1]), found[3] === undefined ? null : Number(found[3])];
      if (!(amount > 0) || density === 0 || (byVolume && density === null)) return null;
      const name = found[2].charAt(0).toUpperCase() + found[2].slice(1);
      const parts = byVolume && density !== null ? amount * density : amount;
      return { parts, name, ...(density === null ? {} : { densityGPerCm3: density }) };
    });
  const parts = read.filter((part) => part !== null);
  return parts.length === read.length && parts.length >= 2 && parts.length <= 6 ? parts : null;
}
