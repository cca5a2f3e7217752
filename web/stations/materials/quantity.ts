import type { MaterialLine } from "../../../core/materials/property.ts";
import type { Show } from "../../lib/show.ts";

/** A quantity as the shop reads it. */
export function quantityText(line: MaterialLine, show: Show): string {
  switch (line.unit) {
    case "kg":
      return show.mass(line.quantity * 1000);
    case "l":
      return show.volume(line.quantity * 1e6);
    case "m2":
      return show.area(line.quantity * 1e6);
    case "m":
      return show.length(line.quantity * 1000);
    case "pcs":
      return String(Math.ceil(line.quantity));
  }
}
