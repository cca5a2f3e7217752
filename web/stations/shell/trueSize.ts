/** How many of this screen's dots make a millimetre: measured once with a bank card, and kept in the browser. */

/** Bank cards are of one size all over the world (ISO/IEC 7810, ID-1), mm. */
export const CARD_MM = { width: 85.6, height: 53.98 } as const;

const KEY = "rimefell.pxPerMm";
/** Until it is measured: 96 dots an inch, as browsers have it. */
const NOMINAL = 96 / 25.4;

export function screenPxPerMm(): number {
  const kept = Number(localStorage.getItem(KEY));
  return kept > 0.5 && kept < 50 ? kept : NOMINAL;
}

export function keepScreenPxPerMm(pxPerMm: number): void {
  localStorage.setItem(KEY, String(pxPerMm));
}
