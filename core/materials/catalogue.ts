/**
 * The materials that quantities are told of, by what they are. An id is kept with whatever refers to a material; the
 * name is for people, and may change.
 */
export const MATERIALS = {
  "silicone-base": { name: "Silicone base", unit: "kg" },
  "silicone-catalyst": { name: "Silicone catalyst", unit: "kg" },
  "silicone-thickener": { name: "Thickener for silicone", unit: "kg" },
  "silicone-pigment": { name: "Silicone pigments", unit: "kg" },
  "casting-plaster": { name: "Casting plaster", unit: "kg" },
  "mixing-water": { name: "Mixing water", unit: "l" },
  "jute-scrim": { name: "Jute scrim", unit: "m2" },
  "polyester-resin": { name: "Laminating polyester resin", unit: "kg" },
  "polyester-gel-coat": { name: "Polyester gel coat", unit: "kg" },
  "peroxide-hardener": { name: "Peroxide hardener", unit: "kg" },
  "glass-mat": { name: "Glass mat", unit: "m2" },
  "water-clay": { name: "Water clay", unit: "kg" },
  "release-agent": { name: "Release", unit: "kg" },
  bolts: { name: "Bolts with nut and two washers", unit: "pcs" },
  straps: { name: "Webbing straps with a ratchet", unit: "pcs" },
  poles: { name: "Poles, 25 mm", unit: "m" },
  "seam-shims": { name: "Shims", unit: "pcs" },
  "cast-plugs": { name: "Plugs, cast beforehand", unit: "pcs" },
  "plug-mix": { name: "Mix for plugs, cast beforehand", unit: "l" },
} as const;

export type MaterialId = keyof typeof MATERIALS;

/** What a material is used for, where one material has several uses. */
export const MATERIAL_USES = {
  jacket: "",
  shell: "",
  walls: "for parting walls",
  faces: "for jacket and flanges",
  fills: "for fills",
  webs: "for webs",
  foot: "for the foot",
  holes: "for through-holes",
  seam: "for the jacket's seam",
  flanges: "for flanges",
  board: "for the foot and its board",
} as const;

export type MaterialUse = keyof typeof MATERIAL_USES;

/** What people see of a line. */
export function materialName({ material, use }: { readonly material: MaterialId; readonly use: MaterialUse }): string {
  return [MATERIALS[material].name, MATERIAL_USES[use]].filter((part) => part.length > 0).join(" ");
}

/** The entries of the catalogue that some lines speak of, as they stand: kept with what is built from. */
export function entriesOf(
  lines: readonly { readonly material: MaterialId }[],
): Record<string, (typeof MATERIALS)[MaterialId]> {
  return Object.fromEntries(lines.map(({ material }) => [material, MATERIALS[material]]));
}
