/**
 * Zones where the jacket is laid thicker: over the streamlined jacket a further layer, full in the zone and running out
 * beside it. On the field: phi - e(x), e the layer's thickness where x lies over the zone.
 */
import { BRICK, type BrickGrid, nodeAt } from "../field/grid.ts";
import { DAB_FIGURES, type Dabs } from "../survey/zones.ts";

export interface ThickerZones {
  readonly dabs: Dabs;
  /** What is laid on, mm. */
  readonly moreMm: number;
}

/** The layer runs out over so many times its thickness. */
const RUN_OUT = 3;
/** A place farther behind a dab than this share of its radius lies on another wall. */
const BEHIND = 0.5;

/**
 * Lowers the field of a jacket's outside over the zones.
 * @param phi per node, mm near the face, exact up to `moreMm` outside it; changed in place
 * @param overMm how far the jacket lies over the piece without them
 */
export function thicken(grid: BrickGrid, phi: Float32Array, { dabs, moreMm }: ThickerZones, overMm: number): void {
  const { originMm: o, stepMm: h, bricks } = grid;
  const layer = new Map<number, number>();
  const runOutMm = RUN_OUT * moreMm;
  for (let k = 0; k < dabs.length; k += DAB_FIGURES) {
    const full = dabs[k + 6] + overMm + moreMm;
    const reach = full + runOutMm;
    const low = [0, 1, 2].map((a) => Math.max(0, Math.floor((dabs[k + a] - reach - o[a]) / h)));
    const high = [0, 1, 2].map((a) => Math.min(bricks[a] * BRICK - 1, Math.ceil((dabs[k + a] + reach - o[a]) / h)));
    for (let z = low[2]; z <= high[2]; z++) {
      for (let y = low[1]; y <= high[1]; y++) {
        for (let x = low[0]; x <= high[0]; x++) {
          const node = nodeAt(grid, x, y, z);
          if (node < 0) continue;
          const [dx, dy, dz] = [o[0] + x * h - dabs[k], o[1] + y * h - dabs[k + 1], o[2] + z * h - dabs[k + 2]];
          if (dx * dabs[k + 3] + dy * dabs[k + 4] + dz * dabs[k + 5] < -BEHIND * dabs[k + 6]) continue;
          const share = 1 - (Math.sqrt(dx * dx + dy * dy + dz * dz) - full) / runOutMm;
          const more = moreMm * smooth(Math.min(1, Math.max(0, share)));
          if (more > (layer.get(node) ?? 0)) layer.set(node, more);
        }
      }
    }
  }
  for (const [node, more] of layer) phi[node] -= more;
}

function smooth(share: number): number {
  return share * share * (3 - 2 * share);
}
