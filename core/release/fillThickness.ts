/** How thick the fill is: how far the filled jacket stands off the jacket as it was. */
import type { NearestField } from "../field/nearest.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";

/** Nearer to the bare jacket than this share of a step is no fill. */
const NOISE_STEPS = 0.5;
/** Vertices passed over when only the greatest is asked for. */
const STRIDE = 5;

/**
 * @param bare the places nearest the jacket before any fill
 * @param stepMm of the jacket's grid
 * @returns thickness at every vertex of a skin on the filled jacket, mm; 0 where nothing was filled
 */
export function fillThickness({ positions: p }: TriangleMesh, bare: NearestField, stepMm: number): Float32Array {
  const out = new Float32Array(p.length / 3);
  for (let v = 0; v < out.length; v++) {
    const mm = bare.distance(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
    if (mm > NOISE_STEPS * stepMm) out[v] = mm;
  }
  return out;
}

/** The greatest thickness of the fill under a skin, mm, from every fifth vertex. */
export function thickestFillMm({ positions: p }: TriangleMesh, bare: NearestField, stepMm: number): number {
  let most = 0;
  for (let at = 0; at < p.length; at += 3 * STRIDE) most = Math.max(most, bare.distance(p[at], p[at + 1], p[at + 2]));
  return most > NOISE_STEPS * stepMm ? most : 0;
}
