/**
 * Looks along both neighbours' pulls at every point of a parting line: where it is out of sight from one of them, the
 * line must move. What the trade does with markers of clay looked at from front and back.
 *
 * A ray is followed by sphere tracing (Hart 1996): each step is as long as the space about it is free.
 */
import type { NearestField } from "../../field/nearest.ts";
import { type Box, meshBox, type TriangleMesh } from "../../mesh/mesh.ts";
import { type Direction, normalised } from "../../space/directions.ts";
import type { PartingLine } from "./cut.ts";

export interface HiddenStretch {
  /** The two sections of the line, as it numbers them. */
  readonly sections: readonly [number, number];
  /** The one of them along whose pull it is out of sight. */
  readonly from: number;
  readonly lengthMm: number;
  /** The middle of the stretch. */
  readonly at: readonly [number, number, number];
  /** How far its middle would have to move over the surface; null where nothing near is in sight of both. */
  readonly moveMm: number | null;
  /** Where its middle would be then. */
  readonly to: readonly [number, number, number] | null;
}

export interface SightRequest {
  readonly mesh: TriangleMesh;
  readonly nearest: NearestField;
  /** Unit pull of each section. */
  readonly pulls: readonly Direction[];
  readonly stepMm: number;
}

/** Rays start this far off the surface, in steps: what leans in by less is the roughness that locks are allowed too. */
const OFF = 2;
/** A ray that comes nearer than this has met the surface, in steps. */
const MET = 0.25;
/** Stretches shorter than this are roughness, in steps. */
const SHORTEST = 4;
/** A place in sight is looked for no farther than this beside the line, mm. */
const FARTHEST_MOVE_MM = 120;

export function hiddenStretches(lines: readonly PartingLine[], request: SightRequest): HiddenStretch[] {
  const sight = new Sight(request);
  return lines.flatMap((line) => line.sections.flatMap((section) => stretchesOf(line, section, sight, request)));
}

function stretchesOf(line: PartingLine, from: number, sight: Sight, { stepMm }: SightRequest): HiddenStretch[] {
  const count = line.points.length / 3;
  const hidden = Array.from({ length: count }, (_, k) => !sight.sees(from, pointOf(line, k)));
  const found: HiddenStretch[] = [];
  for (const { first, last } of runs(hidden, line.closed)) {
    const points = Array.from({ length: last - first + 1 }, (_, n) => pointOf(line, (first + n) % count));
    const lengthMm = points.slice(1).reduce((sum, p, n) => sum + Math.hypot(...p.map((x, a) => x - points[n][a])), 0);
    if (lengthMm < SHORTEST * stepMm) continue;
    const middle = Math.floor((first + last) / 2);
    const along = normalised(
      [0, 1, 2].map(
        (a) => pointOf(line, (middle + 1) % count)[a] - pointOf(line, (middle + count - 1) % count)[a],
      ) as unknown as Direction,
    );
    const at = pointOf(line, middle % count);
    const way = sight.wayInto(line.sections, at, along);
    found.push({ sections: line.sections, from, lengthMm, at, moveMm: way?.mm ?? null, to: way?.to ?? null });
  }
  return found;
}

function pointOf({ points }: PartingLine, k: number): [number, number, number] {
  return [points[3 * k], points[3 * k + 1], points[3 * k + 2]];
}

/** Runs of true; on a ring, a run over its seam is one, its last place counted on past the end. */
function runs(values: readonly boolean[], closed: boolean): { first: number; last: number }[] {
  const out: { first: number; last: number }[] = [];
  values.forEach((value, k) => {
    const run = out.at(-1);
    if (!value) return;
    if (run && run.last === k - 1) run.last = k;
    else out.push({ first: k, last: k });
  });
  const [head, tail] = [out[0], out.at(-1)];
  if (closed && head && tail && head !== tail && head.first === 0 && tail.last === values.length - 1) {
    out.shift();
    tail.last += head.last + 1;
  }
  return out;
}

class Sight {
  private readonly place = new Float64Array(3);
  private readonly box: Box;

  constructor(private readonly request: SightRequest) {
    this.box = meshBox(request.mesh);
  }

  /** How far a ray goes before it is past the body's box for good, mm. */
  private leavesAfter(from: readonly number[], d: Direction): number {
    const { min, max } = this.box;
    const ways = d.map((along, a) => (along === 0 ? Infinity : ((along > 0 ? max : min)[a] - from[a]) / along));
    return Math.min(...ways);
  }

  /** Is a point of the surface in sight along a section's pull? */
  sees(section: number, at: readonly number[]): boolean {
    const { nearest, pulls, stepMm } = this.request;
    const d = pulls[section];
    const normal = this.normalAt(at);
    const [px, py, pz] = at.map((x, a) => x + OFF * stepMm * normal[a]);
    const [dx, dy, dz] = d;
    const far = this.leavesAfter([px, py, pz], d);
    for (let gone = 0; gone < far; ) {
      const free = nearest.distanceNear(3 * stepMm, px + gone * dx, py + gone * dy, pz + gone * dz);
      if (free < MET * stepMm) return false;
      gone += Math.max(0.5 * stepMm, free - stepMm);
    }
    return true;
  }

  /** The nearest place to either side of a line that both sections see, and how far it is over the surface, mm. */
  wayInto(
    sections: readonly [number, number],
    at: readonly number[],
    along: Direction,
  ): { mm: number; to: [number, number, number] } | null {
    const { nearest, stepMm } = this.request;
    for (let mm = stepMm; mm <= FARTHEST_MOVE_MM; mm += stepMm) {
      for (const side of [1, -1]) {
        const moved = this.walk(at, along, side, mm);
        nearest.nearest(this.place, moved[0], moved[1], moved[2]);
        const [x, y, z] = this.place;
        const to: [number, number, number] = [x, y, z];
        if (sections.every((section) => this.sees(section, to))) return { mm, to };
      }
    }
    return null;
  }

  /** The place on the surface so far beside a line. */
  private walk(at: readonly number[], along: Direction, side: number, mm: number): number[] {
    const { nearest, stepMm } = this.request;
    let place = [...at];
    for (let gone = 0; gone < mm; gone += stepMm) {
      const n = this.normalAt(place);
      const across = [
        n[1] * along[2] - n[2] * along[1],
        n[2] * along[0] - n[0] * along[2],
        n[0] * along[1] - n[1] * along[0],
      ];
      const length = Math.hypot(...across) || 1;
      const [x, y, z] = place.map((value, a) => value + (side * Math.min(stepMm, mm - gone) * across[a]) / length);
      nearest.nearest(this.place, x, y, z);
      place = [...this.place];
    }
    return place;
  }

  private normalAt(at: readonly number[]): Direction {
    const { nearest, mesh } = this.request;
    const t = 3 * nearest.nearest(this.place, at[0], at[1], at[2]);
    const { positions: p, triangles } = mesh;
    const [a, b, c] = [3 * triangles[t], 3 * triangles[t + 1], 3 * triangles[t + 2]];
    const u = [0, 1, 2].map((x) => p[b + x] - p[a + x]);
    const v = [0, 1, 2].map((x) => p[c + x] - p[a + x]);
    return normalised([u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]]);
  }
}
