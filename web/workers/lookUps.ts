/** What is soon looked up on meshes that are shown; needs no scan. */
import { NearestField } from "../../core/field/nearest.ts";
import { type JobContext, plainContext } from "../../core/job/context.ts";
import type { Team } from "../../core/job/team.ts";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";
import type { Place } from "../../core/parting/layout/handles.ts";
import { wayThrough } from "../../core/parting/layout/sections.ts";
import { type Surface, surfaceOf } from "../../core/parting/layout/surface.ts";
import { type RouteRequest, type SeamRoute, seamRoute } from "../../core/parting/seam/seamRoute.ts";
import { type Direction, pullDirections } from "../../core/space/directions.ts";
import { type Decision, decisionsOf } from "../../core/survey/decisions.ts";
import { throughHoles } from "../../core/survey/holes.ts";
import { freeCounts, surveyMap } from "../../core/survey/map.ts";
import { type StretchCheck, stretchCheck } from "../../core/survey/stretch.ts";
import { airTips } from "../../core/survey/tips.ts";
import { type NarrowPlace, narrowClasses, narrowPlaces, wallsOf } from "../../core/survey/walls.ts";
import { coverPicture } from "./pictures.ts";

/** Walls nearer to each other than a limit: 2 within it, 1 near it, 0 else, at every vertex; and the places within it. */
export interface NarrowWalls {
  readonly classes: Uint8Array;
  readonly places: readonly NarrowPlace[];
}

export interface ShownWalls {
  readonly gaps: NarrowWalls;
  readonly thin: NarrowWalls;
}

const MAP_PULLS = 48;
/** Narrow places smaller than this are the scan's own roughness. */
const LEAST_PLACE_MM2 = 150;

export abstract class LookUps {
  /** Who computes. */
  protected abstract readonly team: Team;

  /** The survey's map of a shown mesh for a pull; needs no scan. */
  map(mesh: TriangleMesh, pull: Direction, draftDeg: number, spacingMm: number, onBoard: boolean): Uint8Array {
    return surveyMap(mesh, pull, draftDeg, spacingMm, onBoard ? 0 : null);
  }

  /** From how many of an even set of pulls each vertex of a shown mesh is free. */
  counts(
    mesh: TriangleMesh,
    draftDeg: number,
    spacingMm: number,
    onBoard: boolean,
    onProgress: (fraction: number) => void,
  ): { counts: Uint8Array; pulls: number } {
    const pulls = pullDirections(MAP_PULLS);
    return {
      counts: freeCounts(mesh, pulls, draftDeg, spacingMm, onBoard ? 0 : null, onProgress),
      pulls: pulls.length,
    };
  }

  /** How far apart the walls of a shown mesh stand, in front and behind, and where they are nearer than the limits. */
  walls(mesh: TriangleMesh, gapLimitMm: number, thinLimitMm: number, onBoard: boolean): ShownWalls {
    const widestMm = 2 * Math.max(gapLimitMm, thinLimitMm);
    const { gapMm, thickMm } = wallsOf(mesh, NearestField.about(mesh, 4, this.lookUp()), widestMm, onBoard ? 0 : null);
    return {
      gaps: {
        classes: narrowClasses(gapMm, gapLimitMm),
        places: narrowPlaces(mesh, gapMm, gapLimitMm, LEAST_PLACE_MM2),
      },
      thin: {
        classes: narrowClasses(thickMm, thinLimitMm),
        places: narrowPlaces(mesh, thickMm, thinLimitMm, LEAST_PLACE_MM2),
      },
    };
  }

  /** What the jacket of a shown piece must stretch to come off uncut. */
  stretch(mesh: TriangleMesh, allowed: number): StretchCheck {
    return stretchCheck(mesh, allowed);
  }

  /** A route for the jacket's seam over a shown survey mesh. */
  seamRoute(mesh: TriangleMesh, onBoard: boolean, request: RouteRequest): SeamRoute {
    return seamRoute(this.surfaceOn(mesh, onBoard), request);
  }

  /** The shortest way over a shown survey mesh through places that were picked; xyz per point. */
  wayThrough(mesh: TriangleMesh, onBoard: boolean, picked: readonly Place[]): number[] {
    return wayThrough(this.surfaceOn(mesh, onBoard), picked, { kind: "shortest" });
  }

  private surfaceOn(mesh: TriangleMesh, onBoard: boolean): Surface {
    return surfaceOf(mesh, onBoard ? 0 : null, this.lookUp());
  }

  /** What of a shown piece and the jacket over it needs a decision. */
  decisions(
    mesh: TriangleMesh,
    jacket: TriangleMesh,
    gapLimitMm: number,
    thinLimitMm: number,
    onBoard: boolean,
  ): Decision[] {
    const { gaps, thin } = this.walls(mesh, gapLimitMm, thinLimitMm, onBoard);
    const nearest = NearestField.about(jacket, 8, this.lookUp());
    return decisionsOf({
      holes: throughHoles(jacket, nearest),
      gaps: gaps.places,
      thin: thin.places,
      tips: airTips(mesh, onBoard ? 0 : null),
    });
  }

  /** A picture of a shown mesh for the shelf, as PNG. */
  async cover(mesh: TriangleMesh): Promise<Blob> {
    return coverPicture(mesh);
  }

  /** To cancel a plan does not cancel this. */
  private lookUp(): JobContext {
    return { ...plainContext, team: this.team };
  }
}
