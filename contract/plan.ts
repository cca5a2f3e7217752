/** The plan document on the wire: its schema and its limits. Older versions are read by `planUpgrades.ts`. */
import { z } from "zod";
import { POUR_POSITIONS } from "../core/casting/settings.ts";
import { BOLT_HOLDS, FLANGE_WIDTHS_MM, JOINTS, KEY_KINDS } from "../core/flange/settings.ts";
import { FOOT_LIMITS_MM } from "../core/foot/settings.ts";
import { SEAM_KINDS, SEAM_SCHOOLS, type SeamSchoolId } from "../core/jacket/seam.ts";
import { MOST_STOPS } from "../core/jacket/stops.ts";
import { JACKET_KEY_KINDS, MOST_KEYS } from "../core/keys/settings.ts";
import {
  entryOf,
  MATERIAL_IDS,
  type MaterialId,
  type MaterialKey,
  SILICONE_IDS,
  type SiliconeId,
} from "../core/materials/catalogue.ts";
import { standsIn } from "../core/materials/chosen.ts";
import { isOwn } from "../core/materials/entries/own.ts";
import { MIXING_LIMITS, type MixingSettings } from "../core/materials/mixing.ts";
import { USUAL_SILICONE } from "../core/materials/silicone.ts";
import { MOST_SECTIONS } from "../core/parting/layout/layout.ts";
import { PLAN_VERSION, type PlanDocument, SECTION_COUNTS } from "../core/plan/document/document.ts";
import { FILL_KINDS, MOST_FILL_CHOICES } from "../core/release/fills.ts";
import { POLE_MATERIALS, POLES_MM, RIB_KINDS, RIB_SPANS_MM } from "../core/ribs/settings.ts";
import { shellSystems } from "../core/shell/index.ts";
import { MOST_VARIANTS } from "../core/shell/layup.ts";
import { DECISION_KINDS } from "../core/survey/decisions.ts";
import { DAB_FIGURES } from "../core/survey/zones.ts";
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
  widthMm: flangeWidth.nullable(),
  bolts: z.object({
    diameterMm: z.number().min(3, "A bolt is at least 3 mm thick.").max(24, "A bolt is at most 24 mm thick."),
    offMm: z.number().min(5).max(FLANGE_WIDTHS_MM.most).nullable(),
    pitchMm: z.number().min(30, "Bolts stand at least 30 mm apart.").max(600, "Bolts stand at most 600 mm apart."),
    hold: z.enum(BOLT_HOLDS),
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
  poleMm: z.number().min(POLES_MM.least).max(POLES_MM.most),
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
