/** Epoxy and glass cloth: a gel coat, fillets where it turns, then light cloths. */
import type { MaterialId } from "../../materials/catalogue.ts";
import { TYPICAL } from "../../materials/property.ts";
import { type GlassLaid, glassLayer, resinCoat } from "./layers.ts";
import { kitMix } from "./resinMixes.ts";
import type { ShellSystem } from "./system.ts";

export const epoxyCloth: ShellSystem = {
  id: "epoxy-cloth",
  name: "Epoxy and glass cloth",
  summary: "Strong, hardly shrinks; slow and dear, and it sensitises.",
  cautions: ["epoxy", "glass-fibre", "lifting"],
  edges: "Tough",
  setMin: { value: 16 * 60, unit: "min at 20 °C", source: TYPICAL },
  restMin: { value: 24 * 60, unit: "min at 20 °C", source: TYPICAL },
  leastLayers: 5,
  firstLayerMm: 3.5,
  isWet: false,
  bendingMPa: { value: 40, unit: "MPa", source: TYPICAL },
  modulusMPa: { value: 14000, unit: "MPa", source: TYPICAL },
  rib: { coverMm: { value: 3, unit: "mm", source: TYPICAL }, isSolid: false },
  parameters: [
    { key: "gelCoatMm", label: "Gel coat", unit: "mm", value: 0.5, least: 0, most: 2, step: 0.1, source: TYPICAL },
    {
      key: "filletKgPerM2",
      label: "Fillet paste",
      unit: "kg/m²",
      value: 0.15,
      least: 0,
      most: 2,
      step: 0.05,
      source: TYPICAL,
    },
    { key: "layers", label: "Layers of cloth", unit: "", value: 6, least: 1, most: 16, step: 1, source: TYPICAL },
    {
      key: "flangeLayers",
      label: "Layers at the flanges",
      unit: "",
      value: 9,
      least: 1,
      most: 24,
      step: 1,
      source: TYPICAL,
    },
    {
      key: "clothGPerM2",
      label: "Weight of cloth",
      unit: "g/m²",
      value: 280,
      least: 80,
      most: 600,
      step: 10,
      source: TYPICAL,
      of: { material: "glass-cloth", figure: "weightGPerM2" },
    },
    {
      key: "glassFraction",
      label: "Glass by mass",
      unit: "share",
      value: 0.47,
      least: 0.3,
      most: 0.65,
      step: 0.01,
      source: TYPICAL,
    },
    {
      key: "overlap",
      label: "Overlap of cloths",
      unit: "×",
      value: 1.12,
      least: 1,
      most: 2,
      step: 0.05,
      source: TYPICAL,
    },
    { key: "waste", label: "Waste", unit: "share", value: 0.1, least: 0, most: 0.5, step: 0.01, source: TYPICAL },
  ],
  layers({ figure, material }) {
    const kit = (usual: MaterialId) => ({ resin: { material: material(usual).id, usual }, hardener: null });
    const cloth = { material: material("glass-cloth").id, usual: "glass-cloth" } as const;
    const laid: GlassLaid = {
      ...{ ...kit("epoxy-laminating"), glass: cloth, density: RESIN_G_PER_CM3 },
      ...{ glassGPerM2: figure("clothGPerM2"), glassFraction: figure("glassFraction"), overlap: figure("overlap") },
      times: figure("flangeLayers") / figure("layers"),
    };
    const filletMm = figure("filletKgPerM2") / PASTE_G_PER_CM3;
    const paste = kitMix(material("epoxy-fillet-paste"), 60);
    const gelMix = kitMix(material("epoxy-gel-coat"), 120);
    const resinMix = kitMix(material("epoxy-laminating"), 120);
    return [
      ...(figure("gelCoatMm") > 0
        ? [resinCoat(GEL, figure("gelCoatMm"), GEL_G_PER_CM3, gelMix, kit("epoxy-gel-coat"))]
        : []),
      // Paste lies in hollows alone: it weighs, and thickens nothing that is measured.
      ...(filletMm > 0
        ? [
            {
              ...resinCoat(FILLETS, filletMm, PASTE_G_PER_CM3, paste, kit("epoxy-fillet-paste"), 0),
              thicknessMm: 0,
              flangeThicknessMm: 0,
            },
          ]
        : []),
      ...Array.from({ length: figure("layers") }, (_, k) =>
        glassLayer({ id: `cloth-${k + 1}`, name: `Cloth, layer ${k + 1}` }, laid, resinMix),
      ),
    ];
  },
};

const RESIN_G_PER_CM3 = 1.1;
const GEL_G_PER_CM3 = 1.35;
const PASTE_G_PER_CM3 = 1.6;
const GEL = { id: "gel", name: "Gel coat", isFace: true };
const FILLETS = { id: "fillets", name: "Fillets" };
