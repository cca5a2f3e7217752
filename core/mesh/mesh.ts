import { shared, type Team } from "../job/team.ts";
import { perMesh } from "./perMesh.ts";
import { ScanProblem } from "./problem.ts";

/**
 * Triangles over shared vertices. Made only by `makeMesh`, which checks it; treated as immutable.
 * positions: Float32Array, 3 per vertex, mm. triangles: Uint32Array, 3 vertex numbers each, counter-clockwise
 * seen from outside.
 */
export interface TriangleMesh {
  readonly positions: Float32Array;
  readonly triangles: Uint32Array;
}

/** Greatest coordinate accepted, in the file's unit: beyond it float32 cannot tell a scan's triangles apart. */
const GREATEST_COORDINATE = 1e7;

/**
 * @param positions xyz per vertex
 * @param triangles three vertex numbers per triangle
 * @throws ScanProblem `no-triangles`, `bad-coordinate` or `malformed`
 */
export function makeMesh(positions: Float32Array, triangles: Uint32Array): TriangleMesh {
  if (triangles.length === 0) throw new ScanProblem("no-triangles", "The scan holds no triangles.");
  if (triangles.length % 3 !== 0 || positions.length % 3 !== 0) {
    throw new ScanProblem("malformed", "The scan ends in the middle of a triangle.");
  }
  checkCoordinates(positions);
  const vertexCount = positions.length / 3;
  for (let k = 0; k < triangles.length; k++) {
    if (triangles[k] >= vertexCount) {
      throw new ScanProblem(
        "malformed",
        `Triangle ${Math.floor(k / 3) + 1} names vertex ${triangles[k] + 1}, but the scan has only ${vertexCount}.`,
      );
    }
  }
  return { positions, triangles };
}

function checkCoordinates(positions: Float32Array): void {
  for (let k = 0; k < positions.length; k++) {
    const value = positions[k];
    if (!(value > -GREATEST_COORDINATE && value < GREATEST_COORDINATE)) {
      const what = Number.isFinite(value) ? `is ${value.toExponential(1)}, far too large` : "is not a number";
      throw new ScanProblem(
        "bad-coordinate",
        `The ${"xyz"[k % 3]} of vertex ${Math.floor(k / 3) + 1} ${what}; export the scan again.`,
      );
    }
  }
}

export function triangleCount(mesh: TriangleMesh): number {
  return mesh.triangles.length / 3;
}

export function vertexCount(mesh: TriangleMesh): number {
  return mesh.positions.length / 3;
}

/** Axis-aligned box. */
export interface Box {
  readonly min: readonly [number, number, number];
  readonly max: readonly [number, number, number];
}

/** The same mesh in memory that a team shares; itself where it lies there already. */
export function sharedMesh(mesh: TriangleMesh, team: Team): TriangleMesh {
  const positions = shared(team, mesh.positions);
  const triangles = shared(team, mesh.triangles);
  return positions === mesh.positions && triangles === mesh.triangles ? mesh : { positions, triangles };
}

/** The box of a mesh's vertices, in the mesh's units. */
export const meshBox = perMesh((mesh: TriangleMesh): Box => {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  const p = mesh.positions;
  for (let a = 0; a < 3; a++) {
    let low = Infinity;
    let high = -Infinity;
    for (let k = a; k < p.length; k += 3) {
      const value = p[k];
      if (value < low) low = value;
      if (value > high) high = value;
    }
    min[a] = low;
    max[a] = high;
  }
  return { min, max };
});

export function boxSize(box: Box): [number, number, number] {
  return [box.max[0] - box.min[0], box.max[1] - box.min[1], box.max[2] - box.min[2]];
}

/**
 * Area (mm2) and enclosed volume (mm3, by the divergence theorem about the origin; exact for closed, oriented
 * meshes, and for meshes open only on the plane z = 0).
 */
export function areaAndVolume(mesh: TriangleMesh): { areaMm2: number; volumeMm3: number } {
  const t = mesh.triangles;
  const sums = new TriangleSums(mesh.positions);
  for (let k = 0; k < t.length; k += 3) sums.add(t[k], t[k + 1], t[k + 2]);
  return sums.figures();
}

/** Sums the areas of triangles over some points, and the volumes between them and the origin. */
export class TriangleSums {
  private area2 = 0;
  private volume6 = 0;

  /** @param points xyz each, mm; they may change between the triangles */
  constructor(private readonly points: Float32Array | Float64Array) {}

  /** @param a, b, c which points the corners are, counter-clockwise seen from outside */
  add(a: number, b: number, c: number): void {
    const p = this.points;
    const x = p[3 * a];
    const y = p[3 * a + 1];
    const z = p[3 * a + 2];
    const ux = p[3 * b] - x;
    const uy = p[3 * b + 1] - y;
    const uz = p[3 * b + 2] - z;
    const vx = p[3 * c] - x;
    const vy = p[3 * c + 1] - y;
    const vz = p[3 * c + 2] - z;
    const nx = uy * vz - uz * vy;
    const ny = uz * vx - ux * vz;
    const nz = ux * vy - uy * vx;
    this.area2 += Math.sqrt(nx * nx + ny * ny + nz * nz);
    this.volume6 += nx * x + ny * y + nz * z;
  }

  figures(): { areaMm2: number; volumeMm3: number } {
    return { areaMm2: this.area2 / 2, volumeMm3: this.volume6 / 6 };
  }
}

/** Moves every vertex by `p -> matrix p * scale + shift`; `matrix` is row-major 3x3 orthonormal. */
export function transformMesh(
  mesh: TriangleMesh,
  matrix: readonly number[],
  scale: number,
  shift: readonly [number, number, number],
): TriangleMesh {
  const p = mesh.positions;
  const out = new Float32Array(p.length);
  for (let v = 0; v < p.length; v += 3) {
    const x = p[v];
    const y = p[v + 1];
    const z = p[v + 2];
    out[v] = (matrix[0] * x + matrix[1] * y + matrix[2] * z) * scale + shift[0];
    out[v + 1] = (matrix[3] * x + matrix[4] * y + matrix[5] * z) * scale + shift[1];
    out[v + 2] = (matrix[6] * x + matrix[7] * y + matrix[8] * z) * scale + shift[2];
  }
  return { positions: out, triangles: mesh.triangles };
}

/** Are two meshes the same, number by number? */
export function sameMesh(a: TriangleMesh, b: TriangleMesh): boolean {
  return sameNumbers(a.positions, b.positions) && sameNumbers(a.triangles, b.triangles);
}

function sameNumbers(a: Float32Array | Uint32Array, b: Float32Array | Uint32Array): boolean {
  if (a.length !== b.length) return false;
  for (let k = 0; k < a.length; k++) if (a[k] !== b[k]) return false;
  return true;
}
