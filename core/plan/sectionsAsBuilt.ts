/**
 * The sections of a plan as they are built so that they pass each other on their way out: where one would run into another, it
 * is laid thinner.
 */
import type { JobContext } from "../job/context.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { shellThicknesses } from "../shell/index.ts";
import { layupFor } from "../shell/layup.ts";
import { type Clash, clashesAsBuilt, type Met } from "../solids/asBuilt.ts";
import { type Solid, withSolids } from "../solids/kernel.ts";
import { type Relief, relieved } from "../solids/relief.ts";
import { figuresOf } from "../solids/sections.ts";
import { type BuiltSection, builtSections, type SectionLabels, weighed } from "./builtSections.ts";
import type { BuiltWall } from "./builtWalls.ts";
import type { PlanDocument } from "./document/document.ts";
import type { PlanResult } from "./results/planResult.ts";

export interface SectionsAsBuilt {
  readonly sections: readonly BuiltSection[];
  /** What does not pass another all the same. */
  readonly clashes: readonly Clash[];
  /** Where sections are laid thinner to pass. */
  readonly reliefs: readonly Relief[];
}

export const NO_SOLIDS: SectionsAsBuilt = { sections: [], clashes: [], reliefs: [] };

export async function sectionsAsBuilt(
  result: Pick<PlanResult, "parting" | "spans">,
  document: PlanDocument,
  walls: readonly BuiltWall[],
  ctx: JobContext,
  labels: SectionLabels = {},
): Promise<SectionsAsBuilt> {
  const { parting, spans } = result;
  const { ids = [] } = labels;
  const sections = await builtSections(result, document, walls, ctx, labels);
  const thicknesses = sections.map((_, s) => shellThicknesses(layupFor(document.shell, ids[s])));
  const leaving = sections.map(({ mesh }, s) => ({
    ...{ mesh, pull: parting.sections[s].pull, travelMm: parting.sections[s].travelMm },
    flangeMm: thicknesses[s].flangeMm,
  }));
  const about = {
    boltsOf: (section: number) =>
      walls.flatMap((wall, n) => (wall.wall.sections.includes(section) ? boltsOn(wall, n + 1) : [])),
    offJacketMm: (x: number, y: number, z: number) => parting.filledNearest.distance(x, y, z),
    asSolids: new Map<TriangleMesh, Solid>(),
    shellsMm: thicknesses.map(({ shellMm }) => shellMm),
    areasMm2: parting.sections.map(({ areaMm2 }) => areaMm2),
  };
  const reliefs: Relief[] = [];
  return withSolids((solids) => {
    const relieve = (met: Met) => {
      const less = relieved(solids, met, about, ctx);
      if (less.reliefs.length === 0) return less.mesh;
      reliefs.push(...less.reliefs);
      sections[met.section - 1] = weighed(
        { number: met.section, pieces: 1, ...figuresOf(less.mesh) },
        spans,
        document,
        ids,
      );
      return less.mesh;
    };
    const clashes = clashesAsBuilt(leaving, parting.body.grid.stepMm, ctx, relieve);
    return { sections, clashes, reliefs };
  });
}

/** The bolts of a wall with where they are. @param wall its number */
function boltsOn({ along, fastenings: { bolts } }: BuiltWall, wall: number) {
  return bolts.map((bolt) => ({ wall, alongMm: bolt.alongMm, at: along.place(bolt) }));
}
