/**
 * Repair of a scan: weld, drop degenerate and tiny parts, orient, close boundary loops. Every change is reported;
 * nothing is mended in silence. A boundary loop is closed by a fan from its middle: for the inside test the fan
 * is an exact cap whatever the loop's shape (the signed crossings of any two caps of one loop agree outside the
 * space between them).
 */
import { type JobContext, plainContext } from "../job/context.ts";
import { type Adjacency, adjacencyOf, labelParts, OPEN } from "./adjacency.ts";
import { boxSize, meshBox, sharedMesh, type TriangleMesh } from "./mesh.ts";
import { ScanProblem } from "./problem.ts";
import { dropUnusedVertices, JOINED_SHARE, weld } from "./weld.ts";

export interface ScanReport {
  readonly triangles: number;
  readonly openEdges: number;
  readonly nonManifoldEdges: number;
  /** Triangles found turned against their neighbours. */
  readonly flippedTriangles: number;
  readonly parts: number;
  readonly repairs: readonly string[];
  readonly warnings: readonly string[];
}

/** A part smaller than this share of the whole (by box diagonal) is dust. */
const DUST_SHARE = 0.01;
/** A boundary loop lying within this share of the height above the lowest point is the foot. */
const FOOT_SHARE = 0.02;
/** A hole wider than this share of the piece's diagonal deserves a warning. */
const LARGE_HOLE_SHARE = 0.05;

/**
 * @param raw mesh in mm with its up axis along z
 * @returns a welded, oriented mesh (closed wherever its boundary loops are simple) and the report
 * @throws ScanProblem `no-triangles` or `flat`
 */
export function repairScan(
  raw: TriangleMesh,
  ctx: JobContext = plainContext,
): { mesh: TriangleMesh; report: ScanReport } {
  const repairs: string[] = [];
  const warnings: string[] = [];
  const size = boxSize(meshBox(raw));
  const diagonal = Math.hypot(...size);
  if (Math.min(...size) < diagonal * 1e-5) {
    throw new ScanProblem("flat", "The scan is a flat sheet: it encloses nothing. Scan the piece from more sides.");
  }
  let mesh = dropDoubled(dropDegenerate(weld(raw, diagonal * JOINED_SHARE), repairs), repairs);
  ctx.progress("repair", 0.3);
  ctx.checkCancelled();
  const dusted = dropDust(mesh, diagonal, repairs);
  mesh = sharedMesh(dropUnusedVertices(dusted.mesh), ctx.team);
  const triangles = mesh.triangles.length / 3;
  // Where nothing is mended the mesh stays as it is, and what lies across its edges is known to the field too.
  const adjacency = adjacencyOf(mesh);
  ctx.progress("repair", 0.7);
  ctx.checkCancelled();
  const oriented = orient(mesh, adjacency, repairs);
  mesh = oriented.mesh;
  if (adjacency.nonManifoldEdges > 0) {
    warnings.push(
      `${adjacency.nonManifoldEdges} edges are shared by more than two triangles; inside and outside were settled by winding number.`,
    );
  }
  if (adjacency.openEdges > 0) {
    const loops = boundaryLoops(mesh);
    mesh = closeLoops(mesh, loops, diagonal, repairs, warnings);
  }
  mesh = sharedMesh(mesh, ctx.team);
  ctx.progress("repair", 1);
  return {
    mesh,
    report: {
      triangles,
      openEdges: adjacency.openEdges,
      nonManifoldEdges: adjacency.nonManifoldEdges,
      flippedTriangles: oriented.flipped,
      parts: dusted.parts,
      repairs,
      warnings,
    },
  };
}

function dropDegenerate(mesh: TriangleMesh, repairs: string[]): TriangleMesh {
  const t = mesh.triangles;
  const kept = new Uint32Array(t.length);
  let n = 0;
  for (let k = 0; k < t.length; k += 3) {
    const a = t[k];
    const b = t[k + 1];
    const c = t[k + 2];
    if (a === b || b === c || c === a) continue;
    kept[n++] = a;
    kept[n++] = b;
    kept[n++] = c;
  }
  const dropped = (t.length - n) / 3;
  if (n === 0) throw new ScanProblem("no-triangles", "Every triangle of the scan is smaller than can be measured.");
  if (dropped > 0) repairs.push(`dropped ${dropped} degenerate triangles`);
  return { positions: mesh.positions, triangles: kept.slice(0, n) };
}

/**
 * Of triangles on the same three corners one is left where more face one way than the other, and none where as many face
 * each way: a skin scanned twice encloses what it enclosed once, and a sheet with two faces encloses nothing.
 */
function dropDoubled(mesh: TriangleMesh, repairs: string[]): TriangleMesh {
  const { positions, triangles: t } = mesh;
  const count = t.length / 3;
  const slots = new Int32Array(2 ** Math.ceil(Math.log2(2 * count + 2))).fill(-1);
  const facing = new Int8Array(count);
  const corners = (k: number) => {
    const [a, b, c] = [t[3 * k], t[3 * k + 1], t[3 * k + 2]];
    const low = Math.min(a, b, c);
    // Turned so that the lowest corner comes first: the other two tell which way it faces.
    const [second, third] = low === a ? [b, c] : low === b ? [c, a] : [a, b];
    return second < third ? [low, second, third, 1] : [low, third, second, -1];
  };
  let doubled = 0;
  for (let k = 0; k < count; k++) {
    const [a, b, c, way] = corners(k);
    const mixed = Math.imul(a, 73856093) ^ Math.imul(b, 19349663) ^ Math.imul(c, 83492791);
    let slot = (mixed ^ (mixed >>> 15)) & (slots.length - 1);
    for (; slots[slot] >= 0; slot = (slot + 1) & (slots.length - 1)) {
      const [x, y, z] = corners(slots[slot]);
      if (x === a && y === b && z === c) break;
    }
    if (slots[slot] < 0) slots[slot] = k;
    else doubled++;
    facing[slots[slot]] += way;
  }
  if (doubled === 0) return mesh;
  const kept: number[] = [];
  for (const k of slots.filter((first) => first >= 0).sort()) {
    if (facing[k] === 0) continue;
    const [a, b, c] = corners(k);
    if (facing[k] > 0) kept.push(a, b, c);
    else kept.push(a, c, b);
  }
  if (kept.length === 0) throw new ScanProblem("flat", "The scan is a sheet with two faces: it encloses nothing.");
  repairs.push(`dropped ${count - kept.length / 3} doubled triangles`);
  return { positions, triangles: Uint32Array.from(kept) };
}

function dropDust(mesh: TriangleMesh, diagonal: number, repairs: string[]): { mesh: TriangleMesh; parts: number } {
  const { part, parts } = labelParts(mesh);
  if (parts === 1) return { mesh, parts };
  const { positions: p, triangles: t } = mesh;
  const low = new Float32Array(parts * 3).fill(Infinity);
  const high = new Float32Array(parts * 3).fill(-Infinity);
  for (let k = 0; k < part.length; k++) {
    const at = 3 * part[k];
    for (let c = 3 * k; c < 3 * k + 3; c++) {
      for (let a = 0; a < 3; a++) {
        const value = p[3 * t[c] + a];
        if (value < low[at + a]) low[at + a] = value;
        if (value > high[at + a]) high[at + a] = value;
      }
    }
  }
  const dust = new Uint8Array(parts);
  let dustCount = 0;
  for (let k = 0; k < parts; k++) {
    const reach = Math.hypot(
      high[3 * k] - low[3 * k],
      high[3 * k + 1] - low[3 * k + 1],
      high[3 * k + 2] - low[3 * k + 2],
    );
    if (reach < diagonal * DUST_SHARE) {
      dust[k] = 1;
      dustCount++;
    }
  }
  if (dustCount === 0 || dustCount === parts) return { mesh, parts };
  const kept = new Uint32Array(t.length);
  let n = 0;
  for (let k = 0; k < part.length; k++) {
    if (dust[part[k]] === 1) continue;
    for (let c = 3 * k; c < 3 * k + 3; c++) kept[n++] = t[c];
  }
  repairs.push(`dropped ${dustCount} loose specks (${(t.length - n) / 3} triangles)`);
  return { mesh: { positions: p, triangles: kept.slice(0, n) }, parts: parts - dustCount };
}

/** Turns each connected patch so that neighbours agree and the patch encloses a positive volume. */
function orient(mesh: TriangleMesh, adjacency: Adjacency, repairs: string[]): { mesh: TriangleMesh; flipped: number } {
  const t = mesh.triangles.slice();
  const count = t.length / 3;
  const seen = new Uint8Array(count);
  const turned = new Uint8Array(count);
  const queue = new Uint32Array(count);
  let flipped = 0;
  for (let seed = 0; seed < count; seed++) {
    if (seen[seed]) continue;
    let head = 0;
    let tail = 0;
    queue[tail++] = seed;
    seen[seed] = 1;
    let turnedCount = 0;
    while (head < tail) {
      const k = queue[head++];
      for (let e = 3 * k; e < 3 * k + 3; e++) {
        const mate = adjacency.across[e];
        if (mate < 0) continue;
        const other = Math.floor(mate / 3);
        if (seen[other]) continue;
        seen[other] = 1;
        // Neighbours agree when they run along the shared edge in opposite directions.
        const disagrees = mesh.triangles[e] === mesh.triangles[mate];
        turned[other] = disagrees ? 1 - turned[k] : turned[k];
        turnedCount += turned[other];
        queue[tail++] = other;
      }
    }
    const volume = patchVolume(mesh, queue, tail, turned);
    const turnAll = volume < 0;
    flipped += turnAll ? tail - turnedCount : turnedCount;
    for (let q = 0; q < tail; q++) {
      const k = queue[q];
      if ((turned[k] === 1) === turnAll) continue;
      const b = t[3 * k + 1];
      t[3 * k + 1] = t[3 * k + 2];
      t[3 * k + 2] = b;
    }
  }
  if (flipped > 0) repairs.push(`turned ${flipped} triangles to face outwards`);
  return { mesh: flipped > 0 ? { positions: mesh.positions, triangles: t } : mesh, flipped };
}

/** Six times the signed volume of a patch about its first vertex, with the given turns applied. */
function patchVolume(mesh: TriangleMesh, queue: Uint32Array, length: number, turned: Uint8Array): number {
  const { positions: p, triangles: t } = mesh;
  const o = 3 * t[3 * queue[0]];
  let volume = 0;
  for (let q = 0; q < length; q++) {
    const k = 3 * queue[q];
    const a = 3 * t[k];
    const b = 3 * t[k + 1];
    const c = 3 * t[k + 2];
    const ax = p[a] - p[o];
    const ay = p[a + 1] - p[o + 1];
    const az = p[a + 2] - p[o + 2];
    const bx = p[b] - p[o];
    const by = p[b + 1] - p[o + 1];
    const bz = p[b + 2] - p[o + 2];
    const cx = p[c] - p[o];
    const cy = p[c + 1] - p[o + 1];
    const cz = p[c + 2] - p[o + 2];
    const six = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
    volume += turned[queue[q]] ? -six : six;
  }
  return volume;
}

function closeLoops(
  mesh: TriangleMesh,
  loops: readonly number[][],
  diagonal: number,
  repairs: string[],
  warnings: string[],
): TriangleMesh {
  const box = meshBox(mesh);
  const footTop = box.min[2] + FOOT_SHARE * (box.max[2] - box.min[2]);
  const positions = Array.from({ length: loops.length * 3 }, () => 0);
  const extra: number[] = [];
  const base = mesh.positions.length / 3;
  let foot = 0;
  let small = 0;
  let large = 0;
  loops.forEach((loop, n) => {
    const reach = loopMiddle(mesh, loop, positions, n);
    const atFoot = loop.every((v) => mesh.positions[3 * v + 2] <= footTop);
    if (atFoot) foot++;
    else if (reach > diagonal * LARGE_HOLE_SHARE) {
      large++;
      const at = positions.slice(3 * n, 3 * n + 3).map((value) => Math.round(value));
      warnings.push(
        `A hole about ${Math.round(reach)} mm wide near (${at.join(", ")}) was closed flat; check that the scan is complete there.`,
      );
    } else small++;
    for (let i = 0; i < loop.length; i++) extra.push(loop[(i + 1) % loop.length], loop[i], base + n);
  });
  if (foot > 0) repairs.push("closed the foot at the board");
  if (small > 0) repairs.push(`closed ${small} small ${small === 1 ? "hole" : "holes"}`);
  if (large > 0) repairs.push(`closed ${large} large ${large === 1 ? "hole" : "holes"}`);
  const merged = new Float32Array(mesh.positions.length + positions.length);
  merged.set(mesh.positions);
  merged.set(positions, mesh.positions.length);
  const triangles = new Uint32Array(mesh.triangles.length + extra.length);
  triangles.set(mesh.triangles);
  triangles.set(extra, mesh.triangles.length);
  return { positions: merged, triangles };
}

/** Writes the loop's middle as vertex n of `positions`; returns the loop's width (mm). */
function loopMiddle(mesh: TriangleMesh, loop: number[], positions: number[], n: number): number {
  const middle = [0, 0, 0];
  for (const v of loop) for (let a = 0; a < 3; a++) middle[a] += mesh.positions[3 * v + a] / loop.length;
  let reach = 0;
  for (const v of loop) {
    const d = Math.hypot(...middle.map((m, a) => mesh.positions[3 * v + a] - m));
    reach = Math.max(reach, 2 * d);
  }
  for (let a = 0; a < 3; a++) positions[3 * n + a] = middle[a];
  return reach;
}

/** Closed loops of open edges, in the direction their triangles run along them. */
export function boundaryLoops(mesh: TriangleMesh): number[][] {
  const { across } = adjacencyOf(mesh);
  const t = mesh.triangles;
  const next = new Map<number, number[]>();
  for (let e = 0; e < across.length; e++) {
    if (across[e] !== OPEN) continue;
    const from = t[e];
    const to = t[e % 3 === 2 ? e - 2 : e + 1];
    const outs = next.get(from);
    if (outs) outs.push(to);
    else next.set(from, [to]);
  }
  const loops: number[][] = [];
  for (const [first, outs] of next) {
    while (outs.length > 0) {
      const loop = [first];
      let at = outs.pop() as number;
      while (at !== first) {
        const onward = next.get(at);
        if (!onward || onward.length === 0) break;
        loop.push(at);
        at = onward.pop() as number;
      }
      if (at === first && loop.length >= 3) loops.push(loop);
    }
  }
  return loops;
}
