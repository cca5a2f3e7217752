/**
 * Fairs a parting line: evenly spaced points, evened out by repeated averaging with a counter-step so that the line
 * does not shrink (Taubin 1995), then set back on the jacket. Ends of open lines stay where lines meet.
 */
import type { NearestField } from "../../field/nearest.ts";
import type { PartingLine } from "./cut.ts";

/** Waves shorter than about this are taken out of any line: the mesh's own steps, mm. */
const WAVE_MM = 24;
const SMOOTHING = 0.5;
const COUNTER = -0.52;
/** Waves longer than so many spacings pass, however many rounds: 1 - cos(2 pi / n) = 1 / SMOOTHING + 1 / COUNTER. */
export const PASSED_SPACINGS = (2 * Math.PI) / Math.acos(1 - (1 / SMOOTHING + 1 / COUNTER));

/** @param waveMm waves shorter than about this are taken out, mm */
export function fairLine(
  line: PartingLine,
  spacingMm: number,
  nearest: NearestField,
  waveMm: number = WAVE_MM,
): PartingLine {
  const points = resample(line, spacingMm);
  const count = points.length / 3;
  if (count < 4) return { ...line, points };
  const rounds = Math.max(2, Math.round((waveMm / spacingMm) ** 2 / 2));
  let current = Float64Array.from(points);
  for (let round = 0; round < rounds; round++) {
    current = step(current, line.closed, SMOOTHING);
    current = step(current, line.closed, COUNTER);
  }
  const out = new Float32Array(points.length);
  const place = new Float64Array(3);
  for (let k = 0; k < count; k++) {
    nearest.nearest(place, current[3 * k], current[3 * k + 1], current[3 * k + 2]);
    out.set(place, 3 * k);
  }
  if (!line.closed) {
    out.set(points.subarray(0, 3), 0);
    out.set(points.subarray(points.length - 3), points.length - 3);
  }
  return { ...line, points: out };
}

function step(p: Float64Array, closed: boolean, share: number): Float64Array<ArrayBuffer> {
  const count = p.length / 3;
  const out = new Float64Array(p);
  for (let k = closed ? 0 : 1; k < (closed ? count : count - 1); k++) {
    const before = 3 * ((k + count - 1) % count);
    const after = 3 * ((k + 1) % count);
    for (let a = 0; a < 3; a++) out[3 * k + a] += share * ((p[before + a] + p[after + a]) / 2 - p[3 * k + a]);
  }
  return out;
}

/** Points at even distances along the line, about `spacingMm` apart. */
export function resample(
  line: { readonly points: ArrayLike<number>; readonly closed: boolean },
  spacingMm: number,
): Float32Array {
  const p = line.points;
  const count = p.length / 3;
  const legs = line.closed ? count : count - 1;
  const along = new Float64Array(legs + 1);
  for (let k = 0; k < legs; k++) {
    const a = 3 * k;
    const b = 3 * ((k + 1) % count);
    along[k + 1] = along[k] + Math.hypot(p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]);
  }
  const total = along[legs];
  const pieces = Math.max(3, Math.round(total / spacingMm));
  const outCount = line.closed ? pieces : pieces + 1;
  const out = new Float32Array(3 * outCount);
  for (let n = 0, leg = 0; n < outCount; n++) {
    const at = (total * n) / pieces;
    while (leg < legs - 1 && along[leg + 1] < at) leg++;
    const share = Math.min(1, (at - along[leg]) / (along[leg + 1] - along[leg] || 1));
    const a = 3 * leg;
    const b = 3 * ((leg + 1) % count);
    for (let x = 0; x < 3; x++) out[3 * n + x] = p[a + x] + share * (p[b + x] - p[a + x]);
  }
  return out;
}
