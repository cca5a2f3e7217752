/** Results on the wire: a plan's geometry in figures, and what was taken off it. */
import { z } from "zod";
import {
  MATERIAL_IDS,
  MATERIAL_USES,
  type MaterialId,
  type MaterialUse,
  RETIRED,
} from "../core/materials/catalogue.ts";
import type { PlanWarning } from "../core/plan/proof/warning.ts";
import type { BundleFigures } from "../core/plan/results/bundle.ts";
import type { PlanFigures } from "../core/plan/results/figures.ts";
import { FILL_KINDS } from "../core/release/fills.ts";
import { COST_KINDS } from "../core/takeoff/cost.ts";
import { ownId } from "./store.ts";

const number = z.number();
const place = z.tuple([number, number, number]);
const size = z.tuple([number, number, number]);
const numbers = z.array(number);
const kinds = <T extends string>(names: readonly T[]) => z.enum(names as [T, ...T[]]);
const byFillKind = z.object({ silicone: number, clay: number, web: number, plug: number });

const warning: z.ZodType<PlanWarning> = z.discriminatedUnion("kind", [
  z.object({ kind: z.enum(["scan", "jacket", "lines"]), text: z.string() }),
  z.object({ kind: z.literal("held"), section: number, biteMm: number, at: place.nullable() }),
  z.object({ kind: z.literal("circle"), sections: numbers, at: place.nullable() }),
  z.object({ kind: z.literal("lift"), sections: numbers, massG: number, surface: z.string() }),
]);

const section = z.object({
  number: number,
  origin: number,
  pull: place,
  areaMm2: number,
  // Plans of before do not know them.
  bends: z.object({ meanMm: number, gauss: number }).default({ meanMm: 0, gauss: 0 }),
  fillMm3: number,
  fillWith: z.enum(["silicone", "clay", "open"]),
  plugUnder: number.nullable(),
  fillThickMm: number,
  releases: z.boolean(),
  biteMm: number,
  biteAt: place.nullable(),
  travelMm: number,
  lifted: z.boolean(),
  fills: byFillKind,
  lineMm: number,
  footMm: number.default(0),
  footAreasMm2: numbers.default([]),
});

const report = z.object({
  piece: z.object({
    triangles: number,
    openEdges: number,
    nonManifoldEdges: number,
    parts: number,
    areaMm2: number,
    volumeMm3: number,
    sizeMm: size,
    boxMm: z.object({ min: place, max: place }),
    repairs: z.array(z.string()),
  }),
  jacket: z.object({
    thicknessMm: number,
    smoothingMm: number,
    stepMm: number,
    outerAreaMm2: number,
    outerVolumeMm3: number,
    rimMm3: number,
    stopsMm3: number,
    footClayMm3: number,
    siliconeMm3: number,
    siliconeG: number,
    coats: z.array(z.object({ thicknessMm: number, areaMm2: number, massG: number })),
  }),
  sections: z.array(section),
  order: z.object({
    build: numbers,
    remove: numbers,
    liftMm: number,
    liftBefore: number.nullable(),
    blocks: z.array(
      z.object({ section: number, by: number, at: place, afterMm: number, biteMm: number, areaMm2: number }),
    ),
    circle: numbers,
  }),
  giveMm: number,
  fillParts: z.array(
    z.object({
      kind: kinds(FILL_KINDS),
      chosen: z.boolean(),
      volumeMm3: number,
      thickMm: number,
      onJacketMm2: number,
      freeMm2: number,
      at: place,
      bySection: numbers,
    }),
  ),
  clayMm3: number,
  plugMm3: number,
  fillMm3: number,
  partingLengthMm: number,
  // Builds made before walls were worked out have none.
  walls: z.array(z.object({ sections: z.tuple([number, number]), areasMm2: numbers })).default([]),
  // Nor have they what casts push on.
  cavity: z
    .object({ lowMm: number, highMm: number, slices: z.array(numbers) })
    .nullable()
    .default(null),
  ways: z.array(z.object({ turnDeg: number, offMm: number })).default([]),
  spans: z
    .object({
      widestMm: numbers,
      ribs: z.array(
        z.object({
          ...{ section: number, points: numbers, normals: numbers, lengthMm: number },
          ...{ spanMm: number.optional(), turnRad: number.optional(), clearMm: numbers.optional() },
        }),
      ),
      further: z
        .array(
          z.object({
            ...{ section: number, lengthMm: number, spanMm: number, turnRad: number },
            clearMm: numbers.optional(),
          }),
        )
        .default([]),
    })
    .default({ widestMm: [], ribs: [], further: [] }),
  zoneMm: z.object({ keepClear: number, fragile: number, thicker: number }),
  hidden: z.array(
    z.object({
      sections: z.tuple([number, number]),
      from: number,
      at: place,
      to: place.nullable(),
      lengthMm: number,
      moveMm: number.nullable(),
    }),
  ),
  timingsMs: z.object({ read: number, field: number, jacket: number, plan: number, total: number }),
  warnings: z.array(warning),
});

const working = z.object({
  formula: z.string(),
  inputs: z.array(z.object({ name: z.string(), value: number, unit: z.string() })),
});

const takeoff = z.object({
  thicknessMm: number,
  sectionMassesG: numbers,
  // Builds of before have none.
  sectionsLaid: z
    .array(
      z.object({
        ...{ skinM2: number, skinGPerM2: number, flangeM2: number, flangeGPerM2: number },
        coresG: number.default(0),
      }),
    )
    .default([]),
  siliconeG: number,
  fillG: number,
  coatsG: numbers.default([]),
  // Builds of before have none.
  keysG: z.number().default(0),
  shellG: number,
  fillsMinor: numbers,
  materials: z.array(
    z.object({
      material: z.union([kinds([...MATERIAL_IDS, ...(Object.keys(RETIRED) as MaterialId[])]), ownId]),
      use: kinds(Object.keys(MATERIAL_USES) as MaterialUse[]),
      group: z.enum(["jacket", "shell", "sundries"]),
      quantity: number,
      unit: z.enum(["kg", "l", "m2", "m", "pcs"]),
      working,
    }),
  ),
  // Builds of before tell their tasks apart by their names alone.
  tasks: z.array(z.object({ id: z.string().default(""), name: z.string(), handsMin: number, waitMin: number })),
  handsMin: number,
  finishMin: number,
  handsWorking: working,
  costMinor: number,
  costWorking: working,
  costParts: z
    .array(
      z.object({
        ...{ kind: z.enum(COST_KINDS), number, name: z.string(), materialsMinor: number, handsMinor: number },
        handsMin: number,
        takes: z.array(z.object({ material: z.union([kinds(MATERIAL_IDS), ownId]), quantity: number })),
      }),
    )
    .default([]),
  units: z.record(z.string(), number).default({}),
});

const geometry = {
  report,
  stepMm: number,
  wholePiece: z.boolean(),
  locks: z.array(z.object({ section: number, at: place.nullable(), biteMm: number })),
};

/** Figures of a result: geometry alone. */
export const bundleFigures: z.ZodType<BundleFigures> = z.object(geometry);

/** Figures as they are shown, and kept with what is built from. */
export const planFigures: z.ZodType<PlanFigures> = z.object({
  ...geometry,
  takeoff,
  ids: z.object({ sections: z.array(z.string()), lines: z.array(z.string()), fills: z.array(z.string()) }),
  cutOff: z.object({ at: place, fillMm3: number }).nullable(),
  warnings: z.array(warning),
});
