/**
 * The jacket: the piece grown by the sum of the coats, streamlined by a closing, above the board; with what each coat
 * takes. Coat volumes are the measured spaces between offsets of the piece; what the streamlining adds belongs to the
 * thickened coats, what the rim takes to all of them by thickness.
 */
import { closedOffset, closingBand } from "../field/closing.ts";
import { distanceField } from "../field/distance.ts";
import type { BrickGrid } from "../field/grid.ts";
import { isosurface } from "../field/isosurface.ts";
import type { JobContext } from "../job/context.ts";
import { siliconeMassG } from "../materials/silicone.ts";
import { labelParts } from "../mesh/adjacency.ts";
import { clipAbove } from "../mesh/clip.ts";
import { areaAndVolume, sharedMesh, type TriangleMesh } from "../mesh/mesh.ts";
import { SPECK_MM3, withoutPockets } from "../mesh/pockets.ts";
import { together } from "../mesh/together.ts";
import { type CoatLaid, jacketThicknessMm } from "./coat.ts";
import { footClay } from "./footClay.ts";
import { levelFigures } from "./levels.ts";
import { rimAreaMm2 } from "./rim.ts";
import { type Stop, volumeOfStopsMm3, withStops } from "./stops.ts";
import { type ThickerZones, thicken } from "./thicker.ts";

export interface JacketRequest {
  readonly coats: readonly CoatLaid[];
  readonly smoothingMm: number;
  readonly rimWidthMm: number;
  /** Where it is laid thicker; left out where nowhere. */
  readonly thicker?: ThickerZones;
  /** Through-holes closed with clay first; left out where none is. */
  readonly stops?: readonly Stop[];
  /** Gaps under the piece up to this height are closed with clay, mm; none where it is left out. */
  readonly footClayMm?: number;
  readonly onBoard: boolean;
  readonly stepMm: number;
}

export interface CoatReport {
  readonly thicknessMm: number;
  /** Area of the surface the coat is laid on, mm2. */
  readonly areaMm2: number;
  readonly volumeMm3: number;
  readonly massG: number;
}

export interface Jacket {
  readonly request: JacketRequest;
  readonly grid: BrickGrid;
  /** Field of the jacket's outside, negative inside, mm near its face. */
  readonly phi: Float32Array;
  /** The outside, open on the board. */
  readonly mesh: TriangleMesh;
  readonly thicknessMm: number;
  readonly outerAreaMm2: number;
  readonly outerVolumeMm3: number;
  readonly rimMm3: number;
  /** Clay that closes through-holes. */
  readonly stopsMm3: number;
  /** Clay that closes gaps at the foot. */
  readonly footClayMm3: number;
  /** What streamlining and thicker zones add to the plain offset, mm3. */
  readonly streamliningMm3: number;
  readonly siliconeMm3: number;
  readonly siliconeG: number;
  readonly coats: readonly CoatReport[];
  readonly disputedNodes: number;
  readonly timings: { readonly fieldMs: number; readonly jacketMs: number };
}

/** A first coat's surface is read this far off the piece, so that the foot on the board is not counted. */
const OFF_THE_PIECE_MM = 0.05;

export function makeJacket(bare: TriangleMesh, request: JacketRequest, ctx: JobContext): Jacket {
  const stops = request.stops ?? [];
  const foot = footClay(bare, request.onBoard ? (request.footClayMm ?? 0) : 0, request.stepMm / 2);
  const stopped = withStops(bare, stops, request.onBoard);
  const piece = sharedMesh(foot.mesh ? together(stopped, foot.mesh) : stopped, ctx.team);
  const { stepMm: h, smoothingMm: r } = request;
  const t = jacketThicknessMm(request.coats);
  const started = ctx.nowMs();
  const thicker = request.thicker?.dabs.length ? request.thicker : null;
  const moreMm = thicker?.moreMm ?? 0;
  const exactBandsMm: [number, number][] = [[0, t + moreMm + h]];
  if (r > 0) exactBandsMm.push(closingBand(t + r, h));
  const field = distanceField(piece, { stepMm: h, reachMm: t + Math.max(r, moreMm) + 2 * h, exactBandsMm }, ctx);
  const fieldDone = ctx.nowMs();
  const phi = closedOffset(piece, field, t, r, ctx);
  if (thicker) thicken(field.grid, phi, thicker, t);
  const above = (mesh: TriangleMesh) => (request.onBoard ? clipAbove(mesh, 0) : mesh);
  const { mesh: outside } = withoutPockets(isosurface(field.grid, phi, 0, ctx), SPECK_MM3);
  const mesh = sharedMesh(above(outside), ctx.team);
  const outer = areaAndVolume(mesh);
  const rimMm3 = request.onBoard ? rimAreaMm2(field.grid, phi, request.rimWidthMm) * t : 0;
  const offsets = offsetLevels(request.coats, r > 0 || thicker !== null);
  const levels = levelFigures(field.grid, field.distanceMm, offsets, request.onBoard, ctx);
  if (r <= 0 && !thicker) levels.push(outer);
  const pieceVolume = volumeOf(piece, levels[0], t < THIN_STEPS * h);
  const plainVolume = levels[levels.length - 1].volumeMm3;
  const streamliningMm3 = Math.max(0, outer.volumeMm3 - plainVolume);
  const siliconeMm3 = outer.volumeMm3 - pieceVolume + rimMm3;
  return {
    request,
    grid: field.grid,
    phi,
    mesh,
    thicknessMm: t,
    outerAreaMm2: outer.areaMm2,
    outerVolumeMm3: outer.volumeMm3,
    rimMm3,
    stopsMm3: stops.length > 0 ? volumeOfStopsMm3(pieceVolume - foot.volumeMm3, bare) : 0,
    footClayMm3: foot.volumeMm3,
    streamliningMm3,
    siliconeMm3,
    siliconeG: siliconeMassG(siliconeMm3),
    coats: shareOut(request.coats, levels, pieceVolume, { streamliningMm3, rimMm3, totalMm3: siliconeMm3 }),
    disputedNodes: field.disputedNodes,
    timings: { fieldMs: fieldDone - started, jacketMs: ctx.nowMs() - fieldDone },
  };
}

/** A surface whose own volume is off the field's by more than this share runs through itself. */
const OVERLAP_SHARE = 0.03;

/** Under a jacket thinner than so many steps the grid's own error counts: both its faces are read alike, and it cancels. */
const THIN_STEPS = 0.25;

/**
 * What a piece displaces, mm3: where it is in shells that overlap, or runs through itself, or the jacket is thin, as it is
 * read just off it.
 */
function volumeOf(
  piece: TriangleMesh,
  off: { readonly areaMm2: number; readonly volumeMm3: number },
  thin: boolean,
): number {
  const own = areaAndVolume(piece).volumeMm3;
  const read = off.volumeMm3 - OFF_THE_PIECE_MM * off.areaMm2;
  return thin || labelParts(piece).parts > 1 || Math.abs(own - read) > OVERLAP_SHARE * read ? read : own;
}

/** Offsets at which areas and volumes are read: under every coat, and over the last one where it differs from the outside. */
function offsetLevels(coats: readonly CoatLaid[], withLast: boolean): number[] {
  const levels: number[] = [OFF_THE_PIECE_MM];
  let sum = 0;
  for (let k = 0; k < coats.length; k++) {
    sum += coats[k].thicknessMm;
    if (k < coats.length - 1 || withLast) levels.push(sum);
  }
  return levels;
}

function shareOut(
  coats: readonly CoatLaid[],
  levels: readonly { areaMm2: number; volumeMm3: number }[],
  pieceVolume: number,
  extra: { streamliningMm3: number; rimMm3: number; totalMm3: number },
): CoatReport[] {
  const takers = coats.some((coat) => coat.thickened)
    ? coats.map((coat) => (coat.thickened ? coat.thicknessMm : 0))
    : coats.map((coat) => coat.thicknessMm);
  const taken = takers.reduce((sum, value) => sum + value, 0) || 1;
  const thickness = jacketThicknessMm(coats) || 1;
  const plain = coats.map((coat, k) => {
    const below = k === 0 ? pieceVolume : levels[k].volumeMm3;
    return (
      levels[k + 1].volumeMm3 -
      below +
      (extra.streamliningMm3 * takers[k]) / taken +
      (extra.rimMm3 * coat.thicknessMm) / thickness
    );
  });
  // The parts add up to the whole by construction; the scale only takes up rounding.
  const scale = extra.totalMm3 / plain.reduce((sum, value) => sum + value, 0);
  return coats.map((coat, k) => ({
    thicknessMm: coat.thicknessMm,
    areaMm2: levels[k].areaMm2,
    volumeMm3: plain[k] * scale,
    massG: siliconeMassG(plain[k] * scale),
  }));
}
