/** A material's unit as it is read: "m²", not "m2". */
export function unitText(unit: string): string {
  return unit === "m2" ? "m²" : unit;
}
