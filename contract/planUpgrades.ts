/** Stored plan documents of any version read into today's: one step a version. */
import { z } from "zod";
import { TYPICAL_CASTING } from "../core/casting/settings.ts";
import { TYPICAL_FLANGES } from "../core/flange/settings.ts";
import { TYPICAL_FOOT } from "../core/foot/settings.ts";
import { TYPICAL_JACKET_KEYS } from "../core/keys/settings.ts";
import { AS_USUAL } from "../core/materials/chosen.ts";
import { TYPICAL_MIXING } from "../core/materials/mixing.ts";
import { USUAL_SILICONE } from "../core/materials/silicone.ts";
import { newPlan, type PlanDocument } from "../core/plan/document/document.ts";
import { NOBODY_KNOWN } from "../core/plan/document/identity.ts";
import { TYPICAL_RIBS } from "../core/ribs/settings.ts";
import { NO_ZONES } from "../core/survey/zones.ts";
import { planDocument } from "./plan.ts";

/** Reads a stored document of any version into today's. One step a version, oldest first. */
export function upgradePlan(stored: unknown): PlanDocument {
  const steps = [
    ...[fromVersion1, fromVersion2, fromVersion3, fromVersion4],
    ...[fromVersion5, fromVersion6, fromVersion7, fromVersion8],
    ...[fromVersion9, fromVersion10, fromVersion11],
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

/** Version 4 has through-holes closed with clay. */
function fromVersion3(stored: unknown): unknown {
  const old = version3.safeParse(stored);
  if (!old.success) return stored;
  return { ...old.data, version: 4, jacket: { stops: newPlan().jacket.stops, ...old.data.jacket } };
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

const version10 = z.looseObject({
  version: z.literal(10),
  shell: z.looseObject({
    flanges: z.looseObject({ widthMm: z.number().nullable(), bolts: z.looseObject({}) }),
  }),
});

/** Every flange was so wide until version 10, where nothing else was decided. */
const WIDTH_BEFORE_MM = 45;

/** Version 11 lets the width of the flanges go by the shell system, whose edges are laid thicker; bolts may hold in inserts. */
function fromVersion10(stored: unknown): unknown {
  const old = version10.safeParse(stored);
  if (!old.success) return stored;
  const { flanges } = old.data.shell;
  const widthMm = flanges.widthMm === WIDTH_BEFORE_MM ? null : flanges.widthMm;
  const bolts = { hold: TYPICAL_FLANGES.bolts.hold, ...flanges.bolts };
  return { ...old.data, version: 11, shell: { ...old.data.shell, flanges: { ...flanges, widthMm, bolts } } };
}

const version11 = z.looseObject({
  version: z.literal(11),
  shell: z.looseObject({ ribs: z.looseObject({}) }),
});

/** Version 12 has poles of any thickness. */
function fromVersion11(stored: unknown): unknown {
  const old = version11.safeParse(stored);
  if (!old.success) return stored;
  const { poleMm } = TYPICAL_RIBS;
  return { ...old.data, version: 12, shell: { ...old.data.shell, ribs: { poleMm, ...old.data.shell.ribs } } };
}
