/** The straps round a plan's mould, where walls are strapped instead of bolted. */
import { liquidHead } from "../casting/liquidHead.ts";
import { isCharge } from "../casting/settings.ts";
import { type Strap, strapsRound } from "../casting/straps.ts";
import type { Wetted } from "../casting/wetted.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { type FastenedWall, shellTerms } from "./builtWalls.ts";
import type { PlanDocument } from "./document/document.ts";

export interface StrapGround {
  /** What the shell is laid on. */
  readonly jacket: TriangleMesh;
  /** What a liquid pushes on; null where it is not worked out. */
  readonly cavity: Wetted | null;
}

/** @returns none where no wall is strapped */
export function builtStraps(
  { jacket, cavity }: StrapGround,
  { shell, brief }: Pick<PlanDocument, "shell" | "brief">,
  walls: readonly FastenedWall[],
): Strap[] {
  const strapped = walls.filter(({ choice }) => choice?.joint === "straps");
  if (strapped.length === 0) return [];
  const { casting } = shell;
  const head = cavity
    ? liquidHead({
        wetted: cavity,
        walls,
        casting,
        castMaterial: brief.castMaterial,
        isCharge: isCharge(brief.castMethod),
      })
    : null;
  const isStrapped = (pair: readonly number[]) =>
    strapped.some(({ wall }) => wall.sections.every((section) => pair.includes(section)));
  const forces = (head?.pairs ?? []).filter(({ sections }) => isStrapped(sections)).map(({ forceN }) => forceN);
  return strapsRound({
    mesh: jacket,
    shellMm: shellTerms(shell).shellMm,
    edges: walls.map(({ wall }) => wall.head),
    forceN: Math.max(0, ...forces),
    loadN: casting.strapLoadN,
    depthMm: head?.depthMm ?? 0,
    position: casting.position,
  });
}
