/**
 * Foot clay: where the piece stands off its board by less than a hand can brush under, the gap is closed with clay before
 * the first coat. Column by column: from the board to the lowest place of the piece above it, where that is low enough.
 */
import { lineCrossings } from "../field/crossings.ts";
import { meshBox, type TriangleMesh } from "../mesh/mesh.ts";

export interface FootClay {
  /** Closed on all sides, reaching a little into the piece; null where there is no gap. */
  readonly mesh: TriangleMesh | null;
  readonly volumeMm3: number;
}

/** Gaps lower than this are the scan's own roughness, mm. */
const LEAST_GAP_MM = 1;
/** Clay reaches so far into the piece, mm, so that both are one body. */
const INTO_MM = 2;
/** Less clay than this is none, mm3. */
const LEAST_MM3 = 5000;

const NONE: FootClay = { mesh: null, volumeMm3: 0 };

/**
 * @param piece standing on z = 0
 * @param mostMm gaps up to this height are closed
 * @param columnMm width of a column
 */
export function footClay(piece: TriangleMesh, mostMm: number, columnMm: number): FootClay {
  if (mostMm <= LEAST_GAP_MM) return NONE;
  const { min, max } = meshBox(piece);
  const countU = Math.max(1, Math.ceil((max[0] - min[0]) / columnMm));
  const countV = Math.max(1, Math.ceil((max[1] - min[1]) / columnMm));
  const [originU, originV] = [min[0] + 0.4637 * columnMm, min[1] + 0.4189 * columnMm];
  const bundle = { axis: 2, originU, originV, spacingMm: columnMm, countU, countV };
  const { start, place, sign } = lineCrossings(piece, bundle);
  const heights = new Float32Array(countU * countV);
  let volumeMm3 = 0;
  for (let line = 0; line < heights.length; line++) {
    const first = start[line];
    if (first === start[line + 1] || sign[first] < 0) continue;
    const gapMm = place[first];
    if (gapMm < LEAST_GAP_MM || gapMm > mostMm) continue;
    heights[line] = gapMm + INTO_MM;
    volumeMm3 += gapMm * columnMm ** 2;
  }
  if (volumeMm3 < LEAST_MM3) return NONE;
  return { mesh: steps(heights, countU, countV, originU, originV, columnMm), volumeMm3 };
}

/** Columns side by side as one closed body: a top and a bottom each, and walls where two differ in height. */
function steps(
  heights: Float32Array,
  countU: number,
  countV: number,
  originU: number,
  originV: number,
  columnMm: number,
): TriangleMesh {
  const positions: number[] = [];
  const triangles: number[] = [];
  const quad = (...corners: readonly (readonly [number, number, number])[]) => {
    const first = positions.length / 3;
    for (const corner of corners) positions.push(...corner);
    triangles.push(first, first + 1, first + 2, first, first + 2, first + 3);
  };
  const heightAt = (i: number, j: number) =>
    i < 0 || j < 0 || i >= countU || j >= countV ? 0 : heights[i + countU * j];
  for (let j = 0; j < countV; j++) {
    for (let i = 0; i < countU; i++) {
      const z = heightAt(i, j);
      if (z === 0) continue;
      const [x0, y0] = [originU + (i - 0.5) * columnMm, originV + (j - 0.5) * columnMm];
      const [x1, y1] = [x0 + columnMm, y0 + columnMm];
      quad([x0, y0, z], [x1, y0, z], [x1, y1, z], [x0, y1, z]);
      quad([x0, y1, 0], [x1, y1, 0], [x1, y0, 0], [x0, y0, 0]);
      const [left, right, front, back] = [
        heightAt(i - 1, j),
        heightAt(i + 1, j),
        heightAt(i, j - 1),
        heightAt(i, j + 1),
      ];
      if (left < z) quad([x0, y1, left], [x0, y0, left], [x0, y0, z], [x0, y1, z]);
      if (right < z) quad([x1, y0, right], [x1, y1, right], [x1, y1, z], [x1, y0, z]);
      if (front < z) quad([x0, y0, front], [x1, y0, front], [x1, y0, z], [x0, y0, z]);
      if (back < z) quad([x1, y1, back], [x0, y1, back], [x0, y1, z], [x1, y1, z]);
    }
  }
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
}
