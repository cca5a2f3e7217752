/**
 * Sections on the jacket: smooth potentials per section on the mesh's vertices, whose ties are the parting lines.
 *
 * Labels arrive as one number a vertex. The potential of a section is its label's indicator spread over the surface
 * (so that lines come out fair), less a penalty where the surface has turned past the section's horizon (so that
 * lines keep to where both neighbours are free). Lines are the level sets where two potentials tie, cut exactly
 * through the triangles.
 */
import { connectedPieces, type NeighbourRows } from "../../mesh/flood.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import { vertexNeighbours } from "../../mesh/vertexNeighbours.ts";
import type { Direction } from "../../space/directions.ts";

/** Width over which labels are spread: what a hand would round off, mm. */
const FAIRING_MM = 16;
/** Width over which the facing is evened out: the mesh's own roughness, mm. */
const EVENING_MM = 7;
/** A vertex locked under one section but free under another costs this much to the first. */
const SHADOW_WEIGHT = 2.5;
/** A vertex turned past the horizon by one part in this many costs as much as belonging wholly elsewhere. */
const HORIZON_STEEPNESS = 25;
/** Within a zone to keep clear nothing outweighs the labels: the search has judged what a line there costs. */
const CLEAR_WEIGHT = 60;

/**
 * @param label section of each vertex
 * @param pulls unit pull of each section
 * @param locked locked[section][vertex]: 1 where the section would be trapped at the vertex
 * @param clear 1 at the vertices in a zone to keep clear, null where there is none
 * @param stepMm typical edge of the mesh
 * @returns potentials[section][vertex]
 */
export function sectionPotentials(
  mesh: TriangleMesh,
  label: Uint8Array,
  pulls: readonly Direction[],
  locked: readonly Uint8Array[],
  clear: Uint8Array | null,
  stepMm: number,
): Float32Array[] {
  const near = vertexNeighbours(mesh);
  const rounds = Math.max(4, Math.ceil(2 * (FAIRING_MM / stepMm) ** 2));
  const band = new Band(label, near, Math.ceil((3.5 * FAIRING_MM) / stepMm));
  const { normals } = vertexNormals(mesh);
  const evening = Math.ceil((EVENING_MM / stepMm) ** 2);
  const fields = pulls.map(([x, y, z], s) => {
    const field = new Float32Array(label.length);
    for (let v = 0; v < field.length; v++) field[v] = label[v] === s ? 1 : 0;
    const share = band.spread((v) => field[v], rounds);
    const facing = band.spread(
      (v) => x * normals[3 * v] + y * normals[3 * v + 1] + z * normals[3 * v + 2],
      2 * evening,
    );
    const own = locked[s];
    const shadow = band.spread((v) => (own[v] && locked.some((other) => !other[v]) ? 1 : 0), evening);
    const kept = clear && band.spread((v) => (clear[v] && label[v] === s ? CLEAR_WEIGHT : 0), evening);
    band.vertices.forEach((v, q) => {
      const horizon = HORIZON_STEEPNESS * Math.min(0, facing[q]);
      field[v] = share[q] - SHADOW_WEIGHT * shadow[q] + horizon + (kept ? kept[q] : 0);
    });
    return field;
  });
  return withoutIslands(fields, near);
}

/** Every section keeps its largest piece; an island goes to the section it borders on most. Changes the fields. */
export function withoutIslands(fields: Float32Array[], near: NeighbourRows): Float32Array[] {
  dropIslands(fields, near, Infinity);
  return fields;
}

/**
 * Gives islands to the section they border on most. Changes the fields: where an island goes over, its section and the
 * one it goes to change places.
 * @param most pieces of more vertices than this stay, as pieces of their section
 * @returns how many vertices went to another section
 */
export function dropIslands(fields: Float32Array[], near: NeighbourRows, most: number): number {
  let dropped = 0;
  for (let round = 0; round < 3; round++) {
    const label = labelsOf(fields);
    const { of: piece, sizes, label: owner } = connectedPieces(label, near);
    const largest = fields.map((_, s) =>
      sizes.reduce((best, size, k) => (owner[k] === s && (best < 0 || size > sizes[best]) ? k : best), -1),
    );
    const goes = sizes.map((size, k) => largest[owner[k]] !== k && size <= most);
    const borders = sizes.map((_, k) => (goes[k] ? new Float64Array(fields.length) : null));
    for (let v = 0; v < label.length; v++) {
      const border = borders[piece[v]];
      if (!border) continue;
      for (let k = near.start[v]; k < near.start[v + 1]; k++) {
        const other = near.list[k];
        // Islands beside one another do not take each other in.
        if (piece[other] !== piece[v] && !goes[piece[other]]) border[label[other]]++;
      }
    }
    const to = borders.map((border) => (border?.some((n) => n > 0) ? border.indexOf(Math.max(...border)) : -1));
    let islands = 0;
    for (let v = 0; v < label.length; v++) {
      const next = to[piece[v]];
      if (next < 0) continue;
      islands++;
      const own = fields[label[v]][v];
      fields[label[v]][v] = fields[next][v];
      fields[next][v] = own;
    }
    if (islands === 0) break;
    dropped += islands;
  }
  return dropped;
}

/**
 * The vertices within so many edges of a change of label, numbered as they are met from there, so that neighbours lie
 * near one another in memory; and a rim of those just outside, whose values stay as they are.
 */
class Band {
  readonly vertices: Uint32Array;
  private readonly rim: Uint32Array;
  /** Neighbours of the band's vertices in compressed rows, by number; those of the rim follow the band's own. */
  private readonly start: Uint32Array;
  private readonly list: Uint32Array;

  constructor(label: Uint8Array, near: NeighbourRows, rings: number) {
    this.vertices = verticesAround(label, near, rings);
    const count = this.vertices.length;
    const number = new Int32Array(label.length).fill(-1);
    for (let q = 0; q < count; q++) number[this.vertices[q]] = q;
    const rim: number[] = [];
    this.start = new Uint32Array(count + 1);
    for (let q = 0; q < count; q++) {
      const v = this.vertices[q];
      this.start[q + 1] = this.start[q] + near.start[v + 1] - near.start[v];
    }
    this.list = new Uint32Array(this.start[count]);
    for (let q = 0, n = 0; q < count; q++) {
      const v = this.vertices[q];
      for (let k = near.start[v]; k < near.start[v + 1]; k++) {
        const other = near.list[k];
        if (number[other] < 0) {
          number[other] = count + rim.length;
          rim.push(other);
        }
        this.list[n++] = number[other];
      }
    }
    this.rim = Uint32Array.from(rim);
  }

  /** Values after some rounds of averaging with the neighbours, one for each vertex of the band. */
  spread(valueAt: (vertex: number) => number, rounds: number): Float32Array {
    const { vertices, rim, start, list } = this;
    const count = vertices.length;
    let values = new Float32Array(count + rim.length);
    for (let q = 0; q < count; q++) values[q] = valueAt(vertices[q]);
    for (let r = 0; r < rim.length; r++) values[count + r] = valueAt(rim[r]);
    let next = values.slice();
    for (let round = 0; round < rounds; round++) {
      for (let q = 0; q < count; q++) {
        const end = start[q + 1];
        let sum = 0;
        for (let k = start[q]; k < end; k++) sum += values[list[k]];
        next[q] = 0.5 * values[q] + (0.5 * sum) / Math.max(1, end - start[q]);
      }
      [values, next] = [next, values];
    }
    return values.subarray(0, count);
  }
}

/** Vertices within `rings` edges of a change of label. */
function verticesAround(label: Uint8Array, near: NeighbourRows, rings: number): Uint32Array {
  const ring = new Int32Array(label.length).fill(-1);
  const queue = new Uint32Array(label.length);
  let end = 0;
  for (let v = 0; v < label.length; v++) {
    for (let k = near.start[v]; k < near.start[v + 1]; k++) {
      if (label[near.list[k]] === label[v]) continue;
      ring[v] = 0;
      queue[end++] = v;
      break;
    }
  }
  for (let q = 0; q < end; q++) {
    const v = queue[q];
    if (ring[v] >= rings) continue;
    for (let k = near.start[v]; k < near.start[v + 1]; k++) {
      const other = near.list[k];
      if (ring[other] >= 0) continue;
      ring[other] = ring[v] + 1;
      queue[end++] = other;
    }
  }
  return queue.slice(0, end);
}

/** The section of each vertex: the greatest potential, the lower number on a tie. */
export function labelsOf(potentials: readonly Float32Array[]): Uint8Array {
  const out = new Uint8Array(potentials[0].length);
  for (let s = 1; s < potentials.length; s++) {
    for (let v = 0; v < out.length; v++) if (potentials[s][v] > potentials[out[v]][v]) out[v] = s;
  }
  return out;
}
