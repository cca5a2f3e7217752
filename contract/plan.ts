/** The plan document on the wire: its schema, its limits, and the upgrades from older versions. */
import { z } from "zod";
import { POUR_POSITIONS, TYPICAL_CASTING } from "../core/casting/settings.ts";
import { FLANGE_WIDTHS_MM, JOINTS, KEY_KINDS, TYPICAL_FLANGES } from "../core/flange/settings.ts";
import { FOOT_LIMITS_MM, TYPICAL_FOOT } from "../core/foot/settings.ts";
import { SEAM_KINDS, SEAM_SCHOOLS, type SeamSchoolId } from "../core/jacket/seam.ts";
import { MOST_STOPS } from "../core/jacket/stops.ts";
import { JACKET_KEY_KINDS, MOST_KEYS, TYPICAL_JACKET_KEYS } from "../core/keys/settings.ts";
import {
  entryOf,
  MATERIAL_IDS,
  type MaterialId,
  type MaterialKey,
  SILICONE_IDS,
  type SiliconeId,
} from "../core/materials/catalogue.ts";
import { AS_USUAL, standsIn } from "../core/materials/chosen.ts";
import { isOwn } from "../core/materials/entries/own.ts";
import { MIXING_LIMITS, type MixingSettings, TYPICAL_MIXING } from "../core/materials/mixing.ts";
import { USUAL_SILICONE } from "../core/materials/silicone.ts";
import { MOST_SECTIONS } from "../core/parting/layout/layout.ts";
import { newPlan, PLAN_VERSION, type PlanDocument, SECTION_COUNTS } from "../core/plan/document/document.ts";
import { NOBODY_KNOWN } from "../core/plan/document/identity.ts";
import { FILL_KINDS, MOST_FILL_CHOICES } from "../core/release/fills.ts";
import { POLE_MATERIALS, RIB_KINDS, RIB_SPANS_MM, TYPICAL_RIBS } from "../core/ribs/settings.ts";
import { shellSystems } from "../core/shell/index.ts";
import { MOST_VARIANTS } from "../core/shell/layup.ts";
import { DECISION_KINDS } from "../core/survey/decisions.ts";
import { DAB_FIGURES, NO_ZONES } from "../core/survey/zones.ts";
import { lengthUnits } from "../core/units/index.ts";
import { searchRates } from "./rates.ts";
import { ownEntry, ownId } from "./store.ts";

const direction = z
  .tuple([z.number(), z.number(), z.number()])
  .refine((d) => Math.abs(Math.hypot(...d) - 1) < 1e-3, "A direction must have length 1.");

/** Numbers that stand for points of a line or dabs of a zone: whole groups, on no piece larger than this. */
const figures = (group: number, most: number) =>
  z
    .array(z.number().min(-50_000).max(50_000))
    .max(group * most)
    .refine((list) => list.length % group === 0, `Numbers must come in groups of ${group}.`);

const place = z.number().min(-50_000).max(50_000);

const laidLine = z
  .object({
    points: figures(3, 20_000).min(6, "A line has at least two points."),
    handles: z.array(z.number().int().min(0)).min(2),
    closed: z.boolean(),
    left: z.number().int().min(0),
    right: z.number().int().min(0),
  })
  .refine(({ handles, points }) => handles.every((k, n) => k < points.length / 3 && (n === 0 || k > handles[n - 1])), {
    message: "Handles must be points of their line, in order.",
    path: ["handles"],
  })
  .refine(({ left, right }) => left !== right, { message: "A line parts two sections.", path: ["right"] });

const layout = z
  .object({
    sections: z
      .array(
        z.object({
          pull: direction,
          hold: z.enum(["pull", "section"]).optional(),
          fillWith: z.enum(["silicone", "clay", "open"]).optional(),
        }),
      )
      .min(1)
      .max(MOST_SECTIONS),
    lines: z.array(laidLine).max(60),
  })
  .refine(({ sections, lines }) => lines.every(({ left, right }) => Math.max(left, right) < sections.length), {
    message: "A line names a section that is not there.",
    path: ["lines"],
  });

const zone = figures(DAB_FIGURES, 4000);

const shellIds = shellSystems.map((system) => system.id) as [string, ...string[]];

const id = z.string().min(1).max(60);

const siliconeKey = z.union([z.enum(SILICONE_IDS as [SiliconeId, ...SiliconeId[]]), ownId]);
const materialKey = z.union([z.enum(MATERIAL_IDS as [MaterialId, ...MaterialId[]]), ownId]);

const coat = z.object({
  id,
  thicknessMm: z.number().min(0.1, "A coat is at least 0.1 mm.").max(60, "A coat is at most 60 mm."),
  thickened: z.boolean(),
  pigment: z.string().regex(/^#[0-9a-fA-F]{6}$/, "A pigment is a colour like #a0b0c0."),
  silicone: siliconeKey.nullable(),
  gauze: z.boolean(),
});

const layup = {
  system: z.enum(shellIds),
  figures: z.record(z.string(), z.number()),
  order: z.array(id).max(40),
};

const flangeWidth = z
  .number()
  .min(FLANGE_WIDTHS_MM.least, `A flange is at least ${FLANGE_WIDTHS_MM.least} mm wide.`)
  .max(FLANGE_WIDTHS_MM.most, `A flange is at most ${FLANGE_WIDTHS_MM.most} mm wide.`);

const flanges = z.object({
  widthMm: flangeWidth,
  bolts: z.object({
    diameterMm: z.number().min(3, "A bolt is at least 3 mm thick.").max(24, "A bolt is at most 24 mm thick."),
    offMm: z.number().min(5).max(FLANGE_WIDTHS_MM.most).nullable(),
    pitchMm: z.number().min(30, "Bolts stand at least 30 mm apart.").max(600, "Bolts stand at most 600 mm apart."),
  }),
  keys: z.object({
    kind: z.enum(KEY_KINDS),
    radiusMm: z.number().min(3, "A key has a radius of at least 3 mm.").max(25, "A key has a radius of at most 25 mm."),
    pitchMm: z.number().min(50, "Keys stand at least 50 mm apart.").max(1000, "Keys stand at most 1000 mm apart."),
  }),
  walls: z
    .array(
      z.object({
        id,
        widthMm: flangeWidth.nullable(),
        joint: z.enum(JOINTS),
        keys: z.enum(KEY_KINDS).nullable(),
        bolts: z
          .array(z.object({ alongMm: z.number().min(0).max(50_000), offMm: z.number().min(0).max(200) }))
          .max(400)
          .nullable(),
      }),
    )
    .max(200),
});

const casting = z.object({
  position: z.enum(POUR_POSITIONS),
  fillShare: z.number().min(0.05).max(1),
  densityGPerCm3: z.number().min(0.1).max(12).nullable(),
  boltLoadN: z.number().min(10).max(50_000),
  strapLoadN: z.number().min(50).max(100_000),
});

const jacketKeys = z.object({
  kind: z.enum(JACKET_KEY_KINDS),
  radiusMm: z.number().min(3).max(40),
  heightMm: z.number().min(2).max(30),
  taperDeg: z.number().min(5).max(60),
  spacingMm: z.number().min(50).max(1000),
  placed: z
    .array(z.tuple([place, place, place]))
    .max(MOST_KEYS)
    .nullable(),
});

const foot = z.object({
  isFlanged: z.boolean(),
  beyondMm: z.number().min(FOOT_LIMITS_MM.beyond[0]).max(FOOT_LIMITS_MM.beyond[1]),
  isBolted: z.boolean(),
  pitchMm: z.number().min(FOOT_LIMITS_MM.pitch[0]).max(FOOT_LIMITS_MM.pitch[1]),
  pourHoleMm: z.number().min(FOOT_LIMITS_MM.pourHole[0]).max(FOOT_LIMITS_MM.pourHole[1]),
});

const mixingFigure = (key: keyof MixingSettings) => z.number().min(MIXING_LIMITS[key][0]).max(MIXING_LIMITS[key][1]);

const ribs = z.object({
  kind: z.enum(RIB_KINDS),
  pole: z.enum(POLE_MATERIALS),
  spanMm: z.number().min(RIB_SPANS_MM.least).max(RIB_SPANS_MM.most).nullable(),
});

/** Every own material that a plan speaks of is kept in it, of the kind and unit that it stands in for. */
function ownKept({ jacket, materials: { own, instead } }: Pick<PlanDocument, "jacket" | "materials">): boolean {
  const fits = (key: MaterialKey, usual: MaterialId) => {
    if (!isOwn(key)) return standsIn(entryOf(usual), entryOf(key));
    const entry = own.find((each) => each.id === key);
    return entry !== undefined && standsIn(entryOf(usual), entry);
  };
  return (
    [jacket.silicone, ...jacket.coats.flatMap(({ silicone }) => silicone ?? [])].every((key) =>
      fits(key, USUAL_SILICONE),
    ) && (Object.entries(instead) as [MaterialId, MaterialKey][]).every(([usual, key]) => fits(key, usual))
  );
}

const planShape = z.object({
  version: z.literal(PLAN_VERSION),
  seat: z.object({
    unit: z.enum(lengthUnits as ["mm", "cm", "m", "in"]),
    tapeScale: z.number().min(0.01).max(100),
    up: z.enum(["x", "y", "z", "-x", "-y", "-z"]),
    turnDeg: z.number().min(-360).max(360),
    onBoard: z.boolean(),
  }),
  brief: z.object({
    edition: z.number().int().min(1).max(100_000),
    castMaterial: z.string().max(60),
    castMethod: z.enum(["solid", "face-coat", "slush", "rotation"]),
    surface: z.string().max(60),
    liftLimitKg: z.number().min(1).max(2000),
    handlingMm: z.number().min(100).max(20_000),
    immovable: z.boolean(),
  }),
  survey: z.object({
    pull: direction,
    draftDeg: z.number().min(0).max(30),
    dismissed: z
      .array(
        z.object({
          kind: z.enum(DECISION_KINDS),
          at: z.tuple([place, place, place]),
          reason: z.string().trim().max(200),
        }),
      )
      .max(400),
  }),
  jacket: z.object({
    silicone: siliconeKey,
    coats: z.array(coat).min(1, "A jacket has at least one coat.").max(12),
    smoothingMm: z.number().min(0).max(120),
    rimWidthMm: z.number().min(0).max(500),
    thickerMm: z.number().min(0).max(30),
    footClayMm: z.number().min(0).max(200),
    seam: z.object({
      kind: z.enum(SEAM_KINDS),
      school: z.enum(SEAM_SCHOOLS.map(({ id }) => id) as [SeamSchoolId, ...SeamSchoolId[]]),
      points: figures(3, 5000),
    }),
    stops: z
      .array(
        z.object({
          loop: figures(3, 400).min(9, "A loop has at least three points."),
          kind: z.enum(["clay", "plug"]).optional(),
        }),
      )
      .max(MOST_STOPS),
  }),
  parting: z.object({
    sections: z.union([z.literal("auto"), z.literal(SECTION_COUNTS)]),
    pulls: z.array(direction).min(1).max(8).nullable(),
    suggestedAt: searchRates.nullable(),
    giveMm: z.number().min(0.2).max(10).nullable(),
    mostSiliconeMm: z.number().min(0).max(60),
    leastSectionMm2: z.number().min(0).max(1_000_000),
    fills: z
      .array(z.object({ at: z.tuple([place, place, place]), kind: z.enum([...FILL_KINDS, "open"]) }))
      .max(MOST_FILL_CHOICES),
    layout: layout.nullable(),
  }),
  materials: z.object({
    own: z.array(ownEntry).max(100),
    instead: z.partialRecord(z.enum(MATERIAL_IDS as [MaterialId, ...MaterialId[]]), materialKey),
  }),
  mixing: z.object({
    temperatureC: mixingFigure("temperatureC"),
    people: mixingFigure("people").int(),
    pace: mixingFigure("pace"),
    vesselMl: mixingFigure("vesselMl"),
    scaleStepG: mixingFigure("scaleStepG"),
    scaleMostG: mixingFigure("scaleMostG"),
  }),
  touching: z.object({
    answers: z
      .array(
        z.object({
          rule: z.string().min(1).max(60),
          how: z.enum(["accepted", "met"]),
          reason: z.string().trim().max(200),
        }),
      )
      .max(100),
  }),
  zones: z.object({ keepClear: zone, fragile: zone, thicker: zone }),
  identity: z.object({
    next: z.number().int().min(1),
    sections: z
      .array(z.object({ id, origin: z.number().int().min(0), places: figures(3, 200) }))
      .max(2 * MOST_SECTIONS),
    lines: z.array(z.object({ id, between: z.tuple([id, id]), places: figures(3, 60) })).max(200),
    fills: z.array(z.object({ id, at: z.tuple([place, place, place]) })).max(500),
  }),
  shell: z.object({
    ...layup,
    sections: z.array(z.object({ ...layup, section: id })).max(2 * MOST_SECTIONS),
    variants: z.array(z.object({ ...layup, id, name: z.string().trim().min(1).max(60) })).max(MOST_VARIANTS),
    flanges,
    casting,
    jacketKeys,
    ribs,
    foot,
  }),
});

export const planDocument: z.ZodType<PlanDocument> = planShape.refine(ownKept, {
  message: "It speaks of a material that is not kept with it, or that cannot stand in for what it replaces.",
  path: ["materials"],
}) as unknown as z.ZodType<PlanDocument>;

/** Reads a stored document of any version into today's. One step a version, oldest first. */
export function upgradePlan(stored: unknown): PlanDocument {
  const steps = [
    ...[fromVersion1, fromVersion2, fromVersion3, fromVersion4],
    ...[fromVersion5, fromVersion6, fromVersion7, fromVersion8],
    fromVersion9,
  ];
  return planDocument.parse(steps.reduce((document, step) => step(document), stored));
}

const version1 = z.looseObject({ version: z.literal(1), brief: z.looseObject({}) });
const version2 = z.looseObject({
  version: z.literal(2),
  parting: z.looseObject({}),
  jacket: z.looseObject({}),
  survey: z.looseObject({}),
});

const version3 = z.looseObject({ version: z.literal(3), jacket: z.looseObject({}) });

/** Version 2 asks for the largest section that can be handled. */
function fromVersion1(stored: unknown): unknown {
  const old = version1.safeParse(stored);
  if (!old.success) return stored;
  return { ...old.data, version: 2, brief: { handlingMm: newPlan().brief.handlingMm, ...old.data.brief } };
}

/** Version 3 has lines laid by hand and zones. */
function fromVersion2(stored: unknown): unknown {
  const old = version2.safeParse(stored);
  if (!old.success) return stored;
  const { thickerMm, seam } = newPlan().jacket;
  return {
    ...old.data,
    version: 3,
    survey: { dismissed: [], ...old.data.survey },
    jacket: { thickerMm, seam, ...old.data.jacket },
    parting: { layout: null, ...old.data.parting },
    zones: NO_ZONES,
  };
}

const version4 = z.looseObject({
  version: z.literal(4),
  brief: z.looseObject({}),
  jacket: z.looseObject({}),
  parting: z.looseObject({ fillDepthMm: z.unknown() }),
});

/** Version 5 asks how far the rubber gives, closes gaps at the foot, and fills as far as it takes. */
function fromVersion4(stored: unknown): unknown {
  const old = version4.safeParse(stored);
  if (!old.success) return stored;
  const { fillDepthMm: _fillDepthMm, ...parting } = old.data.parting;
  const { giveMm, mostSiliconeMm, leastSectionMm2, fills } = newPlan().parting;
  return {
    ...old.data,
    version: 5,
    brief: { immovable: false, ...old.data.brief },
    jacket: { footClayMm: newPlan().jacket.footClayMm, ...old.data.jacket },
    parting: { giveMm, mostSiliconeMm, leastSectionMm2, fills, ...parting },
  };
}

const version5 = z.looseObject({
  version: z.literal(5),
  parting: z.looseObject({}),
  jacket: z.looseObject({ coats: z.array(z.looseObject({})) }),
  survey: z.looseObject({ dismissed: z.array(z.looseObject({ id: z.string() })) }),
});

/** Until version 5 a place was known by its kind and the cell of a raster of so many mm it lies in. */
const RASTER_MM = 40;

function placedDismissal({ id, ...dismissal }: { readonly id: string }): object {
  const [kind, ...cell] = id.split(" ");
  return { ...dismissal, kind, at: cell.map((k) => RASTER_MM * Number(k)) };
}

/** Version 6 keeps the rates its lines were suggested at, the ids of what was planned, and where decisions were made. */
function fromVersion5(stored: unknown): unknown {
  const old = version5.safeParse(stored);
  if (!old.success) return stored;
  const coats = old.data.jacket.coats.map((coat, k) => ({ id: `coat-${k + 1}`, ...coat }));
  return {
    ...old.data,
    version: 6,
    parting: { suggestedAt: null, ...old.data.parting },
    jacket: { ...old.data.jacket, coats },
    survey: { ...old.data.survey, dismissed: old.data.survey.dismissed.map(placedDismissal) },
    identity: { ...NOBODY_KNOWN, next: coats.length + 1 },
  };
}

const version6 = z.looseObject({ version: z.literal(6), shell: z.looseObject({}) });

/** Version 7 decides on flanges, on what holds them together, and on how the mould is filled. */
function fromVersion6(stored: unknown): unknown {
  const old = version6.safeParse(stored);
  if (!old.success) return stored;
  return {
    ...old.data,
    version: 7,
    shell: { flanges: TYPICAL_FLANGES, casting: TYPICAL_CASTING, jacketKeys: TYPICAL_JACKET_KEYS, ...old.data.shell },
  };
}

const version7 = z.looseObject({ version: z.literal(7), shell: z.looseObject({}) });

/** Version 8 decides on ribs and poles. */
function fromVersion7(stored: unknown): unknown {
  const old = version7.safeParse(stored);
  if (!old.success) return stored;
  return { ...old.data, version: 8, shell: { ribs: TYPICAL_RIBS, ...old.data.shell } };
}

const version8 = z.looseObject({
  version: z.literal(8),
  jacket: z.looseObject({}),
  shell: z.looseObject({
    casting: z.looseObject({}),
    jacketKeys: z.looseObject({}),
    flanges: z.looseObject({ walls: z.array(z.looseObject({})) }),
  }),
});

/** Version 9 has a foot along the board, keys set by hand, straps, and mixes. A plan that had no foot keeps none. */
function fromVersion8(stored: unknown): unknown {
  const old = version8.safeParse(stored);
  if (!old.success) return stored;
  const { casting, jacketKeys, flanges, ...shell } = old.data.shell;
  return {
    ...old.data,
    version: 9,
    jacket: { silicone: USUAL_SILICONE, ...old.data.jacket },
    mixing: TYPICAL_MIXING,
    touching: newPlan().touching,
    shell: {
      foot: { ...TYPICAL_FOOT, isFlanged: false },
      ...shell,
      casting: { strapLoadN: TYPICAL_CASTING.strapLoadN, ...casting },
      jacketKeys: { placed: TYPICAL_JACKET_KEYS.placed, ...jacketKeys },
      flanges: { ...flanges, walls: flanges.walls.map((wall) => ({ keys: null, ...wall })) },
    },
  };
}

const version9 = z.looseObject({
  version: z.literal(9),
  jacket: z.looseObject({ coats: z.array(z.looseObject({})) }),
  shell: z.looseObject({}),
});

/** Version 10 has materials of the workshop's own, coats of another silicone or with gauze, and lay-ups by section. */
function fromVersion9(stored: unknown): unknown {
  const old = version9.safeParse(stored);
  if (!old.success) return stored;
  const coats = old.data.jacket.coats.map((coat) => ({ silicone: null, gauze: false, ...coat }));
  const { order, sections, variants } = newPlan().shell;
  return {
    ...old.data,
    version: 10,
    materials: AS_USUAL,
    jacket: { ...old.data.jacket, coats },
    shell: { order, sections, variants, ...old.data.shell },
  };
}

/** Version 4 has through-holes closed with clay. */
function fromVersion3(stored: unknown): unknown {
  const old = version3.safeParse(stored);
  if (!old.success) return stored;
  return { ...old.data, version: 4, jacket: { stops: newPlan().jacket.stops, ...old.data.jacket } };
}
