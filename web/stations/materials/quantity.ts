import type { MaterialLine } from "../../../core/materials/property.ts";
import type { BuyingRow } from "../../../core/takeoff/buying.ts";
import type { Show } from "../../lib/show.ts";

/** An amount of a material as the shop reads it. */
export function amountText(amount: number, unit: MaterialLine["unit"], show: Show): string {
  switch (unit) {
    case "kg":
      return show.mass(amount * 1000);
    case "l":
      return show.volume(amount * 1e6);
    case "m2":
      return show.area(amount * 1e6);
    case "m":
      return show.length(amount * 1000);
    case "pcs":
      return String(Math.ceil(amount - 1e-9));
  }
}

/** The packs to buy: "1 × 20 kg, 3 × 5 kg"; the amount alone where its packs are not known. */
export function packText({ bought, missing, unit }: BuyingRow, show: Show): string {
  if (missing <= 0) return "";
  if (!bought) return amountText(missing, unit, show);
  return [...bought.packs]
    .sort((a, b) => b.pack.amount - a.pack.amount)
    .map(({ pack, count }) => `${count} × ${amountText(pack.amount, unit, show)}`)
    .join(", ");
}
