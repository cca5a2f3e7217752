/**
 * What the places of a body's surface bite along pulls. Each is measured once and kept as long as the body is: where lines
 * move, most places stay with the section that they had.
 *
 * Space of the caller: mm, z up.
 */
import type { JobContext } from "../job/context.ts";
import { filledBy } from "../mesh/lists.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { vertexNormals } from "../mesh/normals.ts";
import type { Direction } from "../space/directions.ts";
import { measureBites } from "./bite.ts";
import { Body, type BodyData } from "./body.ts";

/** Places are looked at this far off the surface, mm: a way out does not begin by touching it. */
export const OFF_MM = 0.05;

/** Places along an edge that a line may cross it between. */
export const TIES = 8;

/** An edge of the mesh, and the section that its places are to leave with. */
export interface EdgePlaces {
  /** Names the edge. */
  readonly key: number;
  readonly low: number;
  readonly high: number;
  readonly section: number;
}

export class SurfaceBites {
  /** A place for every vertex, xyz, mm. */
  readonly points: Float32Array;
  private readonly ofPull = new Map<
    string,
    { readonly vertices: Float32Array; readonly edges: Map<number, Float32Array> }
  >();

  /** @param fineMm bites no deeper than this are told as zero, mm */
  constructor(
    private readonly body: BodyData,
    mesh: TriangleMesh,
    readonly fineMm: number,
  ) {
    this.points = offSurface(mesh, body);
  }

  /** The bite of vertices, each along the pull of the section beside it, mm. */
  ofVertices(
    vertices: ArrayLike<number>,
    sections: ArrayLike<number>,
    pulls: readonly Direction[],
    ctx: JobContext,
  ): Float32Array {
    const fields = pulls.map((pull) => this.of(pull).vertices);
    const missing: number[] = [];
    for (let k = 0; k < vertices.length; k++) if (Number.isNaN(fields[sections[k]][vertices[k]])) missing.push(k);
    const points = new Float32Array(ctx.team.buffer(12 * missing.length));
    const section = new Uint8Array(ctx.team.buffer(missing.length));
    missing.forEach((k, n) => {
      for (let a = 0; a < 3; a++) points[3 * n + a] = this.points[3 * vertices[k] + a];
      section[n] = sections[k];
    });
    const bites = measureBites({ body: this.body, points, section, pulls, fineMm: this.fineMm }, ctx);
    missing.forEach((k, n) => {
      fields[sections[k]][vertices[k]] = bites[n];
    });
    return filledBy(new Float32Array(vertices.length), (k) => fields[sections[k]][vertices[k]]);
  }

  /** The bites of `TIES` places evenly along each edge, from its lower vertex to its higher one, mm. */
  ofEdges(edges: readonly EdgePlaces[], pulls: readonly Direction[], ctx: JobContext): Float32Array[] {
    const known = pulls.map((pull) => this.of(pull).edges);
    const missing = edges.filter(({ key, section }) => !known[section].has(key));
    const points = new Float32Array(ctx.team.buffer(12 * TIES * missing.length));
    const section = new Uint8Array(ctx.team.buffer(TIES * missing.length));
    missing.forEach(({ low, high, section: own }, n) => {
      for (let k = 0; k < TIES; k++) {
        const share = (k + 0.5) / TIES;
        for (let a = 0; a < 3; a++) {
          points[3 * (TIES * n + k) + a] = (1 - share) * this.points[3 * low + a] + share * this.points[3 * high + a];
        }
        section[TIES * n + k] = own;
      }
    });
    const bites = measureBites({ body: this.body, points, section, pulls, fineMm: this.fineMm }, ctx);
    missing.forEach((edge, n) => {
      known[edge.section].set(edge.key, bites.slice(TIES * n, TIES * (n + 1)));
    });
    return edges.map((edge) => known[edge.section].get(edge.key) ?? NONE);
  }

  private of(pull: Direction) {
    const name = pull.join();
    let held = this.ofPull.get(name);
    if (!held) {
      held = { vertices: new Float32Array(this.points.length / 3).fill(Number.NaN), edges: new Map() };
      this.ofPull.set(name, held);
    }
    return held;
  }
}

const NONE = new Float32Array(TIES);

/** The vertices of a body's mesh, each a little off the body. */
function offSurface(mesh: TriangleMesh, data: BodyData): Float32Array {
  const points = Float32Array.from(mesh.positions);
  pushOff(points, vertexNormals(mesh).normals, new Body(data));
  return points;
}

/**
 * Moves places along their normals until they are a little off a body, in place. The face is where the field is zero;
 * triangles cut the corners of what is between the nodes.
 */
export function pushOff(points: Float32Array, normals: Float32Array, body: Body): void {
  for (let k = 0; k < points.length; k += 3) {
    const off = Math.max(OFF_MM, OFF_MM - body.at(points[k], points[k + 1], points[k + 2]));
    for (let a = 0; a < 3; a++) points[k + a] += off * normals[k + a];
  }
}

const kept = new WeakMap<BodyData, SurfaceBites>();

/** What the surface of a body bites, as far as it was measured before. @param mesh the body's surface */
export function bitesOn(body: BodyData, mesh: TriangleMesh, fineMm: number): SurfaceBites {
  const held = kept.get(body);
  if (held?.fineMm === fineMm && held.points.length === mesh.positions.length) return held;
  const made = new SurfaceBites(body, mesh, fineMm);
  kept.set(body, made);
  return made;
}
