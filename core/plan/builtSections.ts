/** The sections of a plan as solids, with what they weigh and who lifts them. */
import type { JobContext } from "../job/context.ts";
import { pushHoles } from "../keys/pushHoles.ts";
import { ribShape } from "../ribs/shape.ts";
import { shellDensities, shellThicknesses } from "../shell/index.ts";
import { layupFor } from "../shell/layup.ts";
import type { FootBody } from "../solids/foot.ts";
import { letterPlaces } from "../solids/letters.ts";
import { numberPlace } from "../solids/number.ts";
import { type SectionSolid, sectionSolids } from "../solids/sections.ts";
import { MM3_PER_CM3 } from "../units/index.ts";
import { builtFoot } from "./builtFoot.ts";
import { builtRibs } from "./builtRibs.ts";
import type { BuiltWall } from "./builtWalls.ts";
import type { PlanDocument } from "./document/document.ts";
import type { PlanResult } from "./results/planResult.ts";

/** Who lifts a section: one person, two, or a hoist. */
export type Lift = "one" | "two" | "hoist";

export interface BuiltSection extends SectionSolid {
  /** What of it is laid up: all but the poles or the cores of its ribs, mm3. */
  readonly laidMm3: number;
  readonly massWetG: number;
  readonly massDryG: number;
  /** By its weight when it is built, when it is heaviest. */
  readonly lift: Lift;
}

export interface SectionLabels {
  /** Ids of the sections, in their order: those that are laid up otherwise are known by them. */
  readonly ids?: readonly string[];
  /** Of the piece, raised on every section that has room for it. */
  readonly name?: string;
}

export async function builtSections(
  { parting, spans }: Pick<PlanResult, "parting" | "spans">,
  document: PlanDocument,
  walls: readonly BuiltWall[],
  ctx: JobContext,
  { ids = [], name = "" }: SectionLabels = {},
): Promise<BuiltSection[]> {
  const { body, cells, cellOf, sections } = parting;
  const { shell, seat } = document;
  const clearOf = (s: number) => [
    ...walls.filter(({ wall }) => wall.sections.includes(s + 1)).map(({ wall }) => wall.foot),
    ...spans.ribs.filter(({ section }) => section === s + 1).map(({ points }) => points),
    ...holes.map(({ at }) => at),
  ];
  const holes = pushHoles(sections, seat.onBoard ? 0 : null, spans.ribs);
  const layups = sections.map((_, s) => layupFor(shell, ids[s]));
  const thicknesses = layups.map(shellThicknesses);
  const ribShapes = layups.map((layup) => ribShape(shell.ribs, layup));
  const foot = builtFoot(parting.filled, document, walls);
  const lowMm = foot && overFootMm(foot);
  const numbers = sections.map(({ skin }, s) => numberPlace(skin, clearOf(s), lowMm));
  const solids = await sectionSolids(
    {
      ...{ body, cells, cellOf, walls, shells: thicknesses },
      holeMm: shell.flanges.bolts.diameterMm / 2,
      hold: shell.flanges.bolts.hold,
      boardMm: seat.onBoard ? 0 : null,
      ribs: spans.ribs,
      ribShapes,
      numbers,
      names: sections.map(({ skin }, s) => {
        const number = numbers[s];
        return number && name ? letterPlaces(skin, clearOf(s), lowMm, name, number) : [];
      }),
      pushHoles: holes,
      foot,
    },
    ctx,
  );
  return solids.map((solid) => weighed(solid, spans, document, ids));
}

/** A section's body with what it weighs and who lifts it. @param ids of the sections, in their order */
export function weighed(
  solid: SectionSolid,
  { ribs }: Pick<PlanResult["spans"], "ribs">,
  document: PlanDocument,
  ids: readonly string[],
): BuiltSection {
  const { shell, brief } = document;
  const { wetGPerCm3, dryGPerCm3 } = shellDensities(layupFor(shell, ids[solid.number - 1]));
  const own = builtRibs(
    ribs.filter(({ section }) => section === solid.number),
    document,
    ids,
  );
  const laidMm3 = own.reduce((left, { coreMm3 }) => left - coreMm3, solid.volumeMm3);
  const coresG = own.reduce((sum, { coreG }) => sum + coreG, 0);
  const massWetG = (laidMm3 / MM3_PER_CM3) * wetGPerCm3 + coresG;
  const massDryG = (laidMm3 / MM3_PER_CM3) * dryGPerCm3 + coresG;
  return { ...solid, laidMm3, massWetG, massDryG, lift: liftOf(massWetG / 1000, brief.liftLimitKg) };
}

/** How high the foot stands where it meets the shell, mm. */
function overFootMm({ boardMm, jacketMm, thickMm }: FootBody): number {
  return boardMm + jacketMm + thickMm;
}

function liftOf(massKg: number, limitKg: number): Lift {
  return massKg <= limitKg ? "one" : massKg <= 2 * limitKg ? "two" : "hoist";
}
