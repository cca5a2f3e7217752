/** The sheets of a plan's sections, in words: one page each to hang beside the work. */
import type { JacketKey } from "../keys/jacketKeys.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { Drawing } from "../patterns/drawing.ts";
import { sectionSheet } from "../patterns/sectionSheet.ts";
import { shellLayers, shellSystem, shellThicknesses } from "../shell/index.ts";
import { layupFor } from "../shell/layup.ts";
import { placeInWords } from "../survey/place.ts";
import { type BuiltRib, builtRibs } from "./builtRibs.ts";
import type { BuiltSection } from "./builtSections.ts";
import type { BuiltWall } from "./builtWalls.ts";
import { layTerms, type PlanDocument } from "./document/document.ts";
import type { GeometryReport } from "./results/report.ts";
import { METRIC, type Words } from "./results/warnings.ts";

export interface SheetRequest {
  readonly pieceName: string;
  readonly document: PlanDocument;
  readonly report: Pick<GeometryReport, "sections" | "order" | "spans" | "giveMm" | "piece">;
  /** Of each section ready to use, by the takeoff, g. */
  readonly massesG: readonly number[];
  readonly skins: readonly TriangleMesh[];
  /** Ids of the sections, in their order. */
  readonly ids?: readonly string[];
  readonly walls: readonly BuiltWall[];
  readonly keys: readonly JacketKey[];
  /** The sections as solids, where they were worked out: what they weigh is taken from them. */
  readonly solids?: readonly Pick<BuiltSection, "massWetG" | "massDryG" | "sizeMm">[];
  readonly words?: Words;
}

/** @returns a drawing a section, in their order */
export function sectionSheets(request: SheetRequest): Drawing[] {
  const { report, skins, walls, keys, pieceName, words = METRIC } = request;
  const count = report.sections.length;
  const ribs = builtRibs(report.spans.ribs, request.document, request.ids ?? []);
  const ribsOf = (number: number) => ribs.filter(({ section }) => section === number);
  return report.sections.map(({ number }, k) => {
    const own = walls.filter(({ wall }) => wall.sections.includes(number));
    return sectionSheet({
      title: `Section ${number} of ${count}`,
      under: `${pieceName}. Arrow up on the outside, number and name beside it.`,
      skin: skins[k],
      edges: own.map(({ wall }) => Float32Array.from(wall.foot)),
      ribs: ribsOf(number).map(({ points }) => points),
      bolts: own.flatMap(({ along, fastenings }) => fastenings.bolts.map((bolt) => along.place(bolt))),
      keys: keys.filter(({ section }) => section === number).map(({ at }) => at),
      names: { front: "From the front", right: "From the right", above: "From above" },
      length: words.length,
      scaleWord: (scale) =>
        `Views 1 : ${scale}, of its inner face. Thin lines: parting. Dashed: ribs, keys. Circles: bolts.`,
      rows: rowsOf(request, k, own, ribsOf(number), words),
    });
  });
}

type Row = readonly [string, string | null];

function rowsOf(
  request: SheetRequest,
  k: number,
  own: readonly BuiltWall[],
  ribs: readonly BuiltRib[],
  words: Words,
): Row[] {
  const { report, document, massesG, keys, solids } = request;
  const section = report.sections[k];
  const { number } = section;
  const { build, remove } = report.order;
  const solid = solids?.[k];
  const fills = Object.entries(section.fills).filter(([, litres]) => litres >= 0.005);
  return [
    ["Order", null],
    ["Built", `${nth(build.indexOf(number))} of ${build.length}`],
    ["Taken off", `${nth(remove.indexOf(number))} of ${remove.length}${section.lifted ? ", after the lift" : ""}`],
    ["Moves before it stands clear", words.length(Math.round(section.travelMm))],
    [
      "Presses into the rubber",
      section.releases ? `${words.length(section.biteMm)} at most` : `held: ${words.length(section.biteMm)}`,
    ],
    ["Weight and size", null],
    ...(solid
      ? ([
          ["Just built", words.mass(solid.massWetG)],
          ["Dry", words.mass(solid.massDryG)],
          ["In a box of", solid.sizeMm.map((mm) => words.length(Math.round(mm))).join(" × ")],
        ] satisfies Row[])
      : ([["Dry, estimated", words.mass(massesG[k])]] satisfies Row[])),
    ["Face", `${(section.areaMm2 / 1e6).toFixed(2)} m²`],
    ...shellRows(document, request.ids?.[k], words),
    ["Before it is built", null],
    ...fills.map(([kind, litres]): Row => [`Fill of ${kind}`, `${litres.toFixed(2)} l`]),
    ["Keys on the jacket", String(keys.filter((key) => key.section === number).length)],
    ...ribs.map(
      ({ coreMm, middleMm }): Row => [
        document.shell.ribs.kind === "poles" ? "Pole" : "Rib",
        `${words.length(Math.round(coreMm))}, ${placeInWords(middleMm, report.piece.boxMm, words.length)}`,
      ],
    ),
    ["Walls", null],
    ...own.map(({ wall, pattern, fastenings, choice }): Row => {
      const other = wall.sections.find((one) => one !== number) ?? number;
      const held = fastenings.bolts.length > 0 ? `${fastenings.bolts.length} bolts` : (choice?.joint ?? "no bolts");
      return [
        `Wall ${pattern.number}, to section ${other}`,
        `${words.length(Math.round(pattern.lengthMm))}, ${held}, ${fastenings.dimples.length + fastenings.grooves.length} keys`,
      ];
    }),
  ];
}

function shellRows(document: PlanDocument, id: string | undefined, words: Words): Row[] {
  const layup = layupFor(document.shell, id);
  const { shellMm, flangeMm } = shellThicknesses(layup);
  const layers = shellLayers(layup, layTerms(document));
  return [
    ["Shell", shellSystem(layup.system).name],
    ["Thickness, at the flanges", `${words.length(shellMm)}, ${words.length(flangeMm)}`],
    ...layers.map(
      ({ name, thicknessMm }, k): Row => [
        `Layer ${k + 1}`,
        thicknessMm > 0 ? `${name}, ${words.length(Math.round(10 * thicknessMm) / 10)}` : name,
      ],
    ),
  ];
}

function nth(place: number): string {
  return ["first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth"][place] ?? `number ${place + 1}`;
}
