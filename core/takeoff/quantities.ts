/** What a plan takes of every material, each with how it was worked out. */
import { jacketThicknessMm } from "../jacket/coat.ts";
import { type SeamTakeoff, seamTakeoff } from "../jacket/seam.ts";
import { clayShareOf } from "../jacket/stops.ts";
import type { MaterialUse } from "../materials/catalogue.ts";
import { type ChosenMaterials, chosenFor } from "../materials/chosen.ts";
import { isOwn } from "../materials/entries/own.ts";
import type { MaterialLine } from "../materials/property.ts";
import {
  heavierThanWeighed,
  type SiliconeLaid,
  siliconeBuying,
  siliconeMassG,
  siliconeOf,
} from "../materials/silicone.ts";
import { coatSilicones, type PlanDocument } from "../plan/document/document.ts";
import type { ShellTakeoff } from "../shell/index.ts";
import { MM2_PER_M2, MM3_PER_CM3, MM3_PER_LITRE } from "../units/index.ts";
import { boltLines, type Fixings, jacketKeysG } from "./fixings.ts";
import { CLAY_BEYOND_MM, CLAY_WALL_MM, wallsMm2 } from "./flanges.ts";
import { ribsOf } from "./ribs.ts";
import { type Sealing, sealings } from "./sealings.ts";
import type { JacketTotals, PartingTotals } from "./totals.ts";
import { websOf } from "./webs.ts";

export interface Quantities {
  /** Silicone on the piece: jacket, rim and fills, g. */
  readonly siliconeG: number;
  /** Of it, every coat, with its share of rim and webs. */
  readonly coatsG: readonly number[];
  /** Of it, the fills. */
  readonly fillG: number;
  /** Silicone of the keys between jacket and shell, cast beforehand, g. */
  readonly keysG: number;
  readonly materials: readonly MaterialLine[];
}

/** Density of wet water clay, g/cm3. */
const CLAY_DENSITY = 1.9;
/** Release agent, g per square metre and face. */
const RELEASE_G_PER_M2 = 60;

export function quantitiesOf(
  document: PlanDocument,
  jacket: JacketTotals,
  parting: PartingTotals,
  shell: ShellTakeoff,
  fixings: Fixings,
): Quantities {
  const thicknessMm = jacketThicknessMm(document.jacket.coats);
  const parts = parting.fillParts ?? [];
  const webMm3 = parts.reduce((sum, { kind, volumeMm3 }) => sum + (kind === "web" ? volumeMm3 : 0), 0);
  const webs = websOf(parts, thicknessMm);
  const { own } = document.materials;
  const { densityGPerCm3 } = siliconeOf(document.jacket.silicone, own);
  const fillG = siliconeMassG(parting.fillMm3 - parting.clayMm3 - parting.plugMm3, densityGPerCm3);
  const coatsG = coatMassesG(document, jacket, webs.moreSiliconeMm3);
  const siliconeG = coatsG.reduce((sum, g) => sum + g, fillG);
  const seam = seamTakeoff(document.jacket.seam, thicknessMm);
  const keysG = jacketKeysG(fixings, document.shell.jacketKeys, densityGPerCm3);
  const clayShare = clayShareOf(document.jacket.stops, document.seat.onBoard);
  const materials = [
    ...siliconeBuying(siliconesLaid(document, coatsG, fillG, keysG), document.materials),
    gauze(document, jacket),
    ...shell.lines,
    poles(document, parting),
    ribCores(document, parting),
    ...boltLines(fixings, document),
    ...wallsAndRelease(document, jacket, parting),
    clay("fills", "fills of clay", Math.max(0, parting.clayMm3 - webMm3)),
    clay("webs", "webs across gaps", webs.clayMm3),
    clay("foot", "gaps under the piece", jacket.footClayMm3),
    clay("holes", "webs of clay", jacket.stopsMm3 * clayShare),
    holePlugs(document, jacket.stopsMm3 * (1 - clayShare)),
    fillPlugs(parting.plugMm3),
    ...seamMaterials(seam),
    ...remedies(sealings(document, jacket, parting, fixings)),
  ].filter((line) => line.quantity > 0);
  return { siliconeG, coatsG, fillG, keysG, materials: asChosen(materials, document.materials) };
}

/** Lines of what stands in for what is usual; a shell's own layers have seen to theirs. */
function asChosen(lines: readonly MaterialLine[], chosen: ChosenMaterials): MaterialLine[] {
  const all = new Map<string, MaterialLine>();
  for (const line of lines) {
    const { group, use, quantity } = line;
    const material = group === "shell" || isOwn(line.material) ? line.material : chosenFor(line.material, chosen).id;
    const held = all.get(`${material} ${use}`);
    all.set(`${material} ${use}`, { ...line, material, quantity: quantity + (held?.quantity ?? 0) });
  }
  return [...all.values()];
}

/** What every coat weighs on the piece, g: each by its own silicone, with what webs add to the jacket. */
function coatMassesG({ jacket, materials }: PlanDocument, totals: JacketTotals, moreMm3: number): number[] {
  const thicknessMm = jacketThicknessMm(jacket.coats) || 1;
  const measuredG = totals.coats.reduce((sum, { massG }) => sum + massG, 0);
  // By their thicknesses while nothing is measured.
  const shareOf = (k: number) =>
    measuredG > 0 ? (totals.coats[k]?.massG ?? 0) / measuredG : jacket.coats[k].thicknessMm / thicknessMm;
  const wholeG = totals.siliconeG + siliconeMassG(moreMm3);
  return coatSilicones(jacket).map((silicone, k) => wholeG * shareOf(k) * heavierThanWeighed(silicone, materials.own));
}

/** What is laid of every silicone. Fills and keys are of the jacket's own. */
function siliconesLaid(
  { jacket }: PlanDocument,
  coatsG: readonly number[],
  fillG: number,
  keysG: number,
): SiliconeLaid[] {
  const silicones = coatSilicones(jacket);
  return [...new Set([jacket.silicone, ...silicones])].map((id) => {
    const isMain = id === jacket.silicone;
    const of = (counts: (k: number) => boolean) =>
      coatsG.reduce((sum, g, k) => (silicones[k] === id && counts(k) ? sum + g : sum), isMain ? fillG : 0);
    return {
      ...{ id, massG: of(() => true), keysG: isMain ? keysG : 0 },
      thickenedG: of((k) => jacket.coats[k].thickened),
    };
  });
}

/** Pieces of gauze overlap by this factor. */
const GAUZE_OVERLAP = 1.15;

function gauze({ jacket: { coats } }: PlanDocument, jacket: JacketTotals): MaterialLine {
  const laid = coats.flatMap((coat, k) => (coat.gauze ? [jacket.coats[k]?.areaMm2 ?? jacket.outerAreaMm2] : []));
  const m2 = laid.reduce((sum, mm2) => sum + mm2, 0) / MM2_PER_M2;
  return {
    material: "open-gauze",
    use: "jacket",
    group: "jacket",
    quantity: m2 * GAUZE_OVERLAP,
    unit: "m2",
    working: {
      formula: "area of every coat that gauze is bedded into × overlap",
      inputs: [
        { name: "coats with gauze", value: laid.length, unit: "" },
        { name: "their area", value: m2, unit: "m²" },
        { name: "overlap", value: GAUZE_OVERLAP, unit: "×" },
      ],
    },
  };
}

/** Clay comes out again and is used again: it is told, and not priced. */
function clay(use: MaterialUse, what: string, mm3: number): MaterialLine {
  return {
    material: "water-clay",
    use,
    group: "sundries",
    quantity: (mm3 * CLAY_DENSITY) / MM3_PER_CM3 / 1000,
    unit: "kg",
    working: {
      formula: `${what} × density`,
      inputs: [
        { name: what, value: mm3 / MM3_PER_CM3, unit: "cm³" },
        { name: "density", value: CLAY_DENSITY, unit: "g/cm³" },
      ],
    },
  };
}

/** Plugs are cast beforehand, of what the shop has. */
function holePlugs({ jacket: { stops } }: PlanDocument, mm3: number): MaterialLine {
  return {
    material: "cast-plugs",
    use: "holes",
    group: "sundries",
    quantity: stops.filter(({ kind }) => kind === "plug").length,
    unit: "pcs",
    working: {
      formula: "through-holes closed with a plug",
      inputs: [{ name: "all of them displace", value: mm3 / MM3_PER_CM3, unit: "cm³" }],
    },
  };
}

function poles(document: PlanDocument, parting: PartingTotals): MaterialLine {
  const isPoled = document.shell.ribs.kind === "poles";
  const lengths = isPoled ? ribsOf(document, parting).map(({ coreMm }) => coreMm / 1000) : [];
  return {
    material: "poles",
    use: "shell",
    group: "shell",
    quantity: lengths.reduce((sum, metres) => sum + metres, 0),
    unit: "m",
    working: {
      formula: "lengths of all poles",
      inputs: [
        { name: "poles", value: lengths.length, unit: "" },
        { name: "thick", value: document.shell.ribs.poleMm, unit: "mm" },
        { name: "longest", value: Math.max(0, ...lengths), unit: "m" },
      ],
    },
  };
}

/** Boards of foam are so thick, mm. */
const FOAM_BOARD_MM = 20;

/** Cores of ribs, cut from board. */
function ribCores(document: PlanDocument, parting: PartingTotals): MaterialLine {
  const cored = document.shell.ribs.kind === "ribs" ? ribsOf(document, parting) : [];
  const coreMm3 = cored.reduce((sum, rib) => sum + rib.coreMm3, 0);
  return {
    material: "foam-board",
    use: "shell",
    group: "shell",
    // Half an ellipse fills so much of the board it is cut from.
    quantity: coreMm3 / (FOAM_BOARD_MM * (Math.PI / 4)) / MM2_PER_M2,
    unit: "m2",
    working: {
      formula: "cores of the ribs ÷ (thickness of a board × what half an ellipse fills of it)",
      inputs: [
        { name: "cores", value: coreMm3 / MM3_PER_CM3, unit: "cm³" },
        { name: "board", value: FOAM_BOARD_MM, unit: "mm" },
        { name: "it fills", value: Math.PI / 4, unit: "share" },
      ],
    },
  };
}

function fillPlugs(mm3: number): MaterialLine {
  return {
    material: "plug-mix",
    use: "fills",
    group: "sundries",
    quantity: mm3 / MM3_PER_LITRE,
    unit: "l",
    working: {
      formula: "fills that are hard plugs",
      inputs: [{ name: "hard plugs", value: mm3 / MM3_PER_CM3, unit: "cm³" }],
    },
  };
}

function seamMaterials({ releasedMm2, shims, lengthMm }: SeamTakeoff): MaterialLine[] {
  const releasedM2 = releasedMm2 / MM2_PER_M2;
  return [
    {
      material: "release-agent",
      use: "seam",
      group: "sundries",
      quantity: (releasedM2 * RELEASE_G_PER_M2) / 1000,
      unit: "kg",
      working: {
        formula: "both faces of the seam × release per m²",
        inputs: [
          { name: "seam", value: lengthMm / 1000, unit: "m" },
          { name: "faces", value: releasedM2, unit: "m²" },
          { name: "release", value: RELEASE_G_PER_M2, unit: "g/m²" },
        ],
      },
    },
    {
      material: "seam-shims",
      use: "seam",
      group: "sundries",
      quantity: shims,
      unit: "pcs",
      working: {
        formula: "seam × shims per metre",
        inputs: [{ name: "seam", value: lengthMm / 1000, unit: "m" }],
      },
    },
  ];
}

/** What remedies that were taken ask for: one line a material, however many rules ask for it. */
function remedies(sealed: readonly Sealing[]): MaterialLine[] {
  const lines = sealed.map(
    ({ takes, what, areaM2 }): MaterialLine => ({
      ...{ material: takes.material, use: "sealing", group: "sundries", unit: "kg" },
      quantity: (areaM2 * takes.gPerM2) / 1000,
      working: {
        formula: `${what} Area × what a m² takes`,
        inputs: [
          { name: "area", value: areaM2, unit: "m²" },
          { name: "takes", value: takes.gPerM2, unit: "g/m²" },
        ],
      },
    }),
  );
  return [...new Set(lines.map(({ material }) => material))].map((material) => {
    const own = lines.filter((line) => line.material === material);
    return { ...own[0], quantity: own.reduce((sum, { quantity }) => sum + quantity, 0) };
  });
}

function wallsAndRelease(document: PlanDocument, jacket: JacketTotals, parting: PartingTotals): MaterialLine[] {
  const wallMm2 = wallsMm2(document, parting);
  const clayMm2 = wallMm2 + CLAY_BEYOND_MM * parting.partingLengthMm;
  const wallG = (clayMm2 * CLAY_WALL_MM * CLAY_DENSITY) / MM3_PER_CM3;
  const faceM2 = (jacket.outerAreaMm2 + 2 * wallMm2) / MM2_PER_M2;
  return [
    {
      material: "water-clay",
      use: "walls",
      group: "sundries",
      quantity: wallG / 1000,
      unit: "kg",
      working: {
        formula: "(walls + parting length × what stands out beyond the flange) × thickness × density",
        inputs: [
          { name: "walls", value: wallMm2 / MM2_PER_M2, unit: "m²" },
          { name: "parting length", value: parting.partingLengthMm / 1000, unit: "m" },
          { name: "beyond the flange", value: CLAY_BEYOND_MM, unit: "mm" },
          { name: "thickness", value: CLAY_WALL_MM, unit: "mm" },
          { name: "density", value: CLAY_DENSITY, unit: "g/cm³" },
        ],
      },
    },
    {
      material: "release-agent",
      use: "faces",
      group: "sundries",
      quantity: (faceM2 * RELEASE_G_PER_M2) / 1000,
      unit: "kg",
      working: {
        formula: "(jacket + both faces of the flanges) × release per m²",
        inputs: [
          { name: "faces", value: faceM2, unit: "m²" },
          { name: "release", value: RELEASE_G_PER_M2, unit: "g/m²" },
        ],
      },
    },
  ];
}
