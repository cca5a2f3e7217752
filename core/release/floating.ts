/**
 * Fill that touches nothing. A place between branches may be reached by no pull and yet be filled to no purpose: no
 * section lies on it, and clay does not float. Such parts are taken out of the field again.
 */
import { BRICK, BRICK_NODES, type BrickGrid, FACES, nodeAt } from "../field/grid.ts";

/**
 * Takes connected parts of the fill that touch neither the bare body nor fill that was there before out of a field, in
 * place: their nodes are half a step outside from then on.
 * @param bare the body before any fill, on a grid with the same origin and step
 * @param changed 1 for each brick of the box in which fill may have been added
 * @returns how many nodes were taken out
 */
export function dropFloating(
  grid: BrickGrid,
  phi: Float32Array,
  bare: { readonly grid: BrickGrid; readonly phi: Float32Array },
  changed: Uint8Array,
): number {
  const [nx, ny] = grid.bricks;
  const seen = new Uint8Array(phi.length);
  const isBare = (i: number, j: number, k: number) => {
    const n = nodeAt(bare.grid, i, j, k);
    return n >= 0 && bare.phi[n] <= 0;
  };
  let dropped = 0;
  for (let slot = 0; slot < grid.brickOf.length; slot++) {
    const b = grid.brickOf[slot];
    if (!changed[b]) continue;
    const corner = [b % nx, Math.floor(b / nx) % ny, Math.floor(b / (nx * ny))].map((at) => BRICK * at);
    for (let m = 0; m < BRICK_NODES; m++) {
      const first = slot * BRICK_NODES + m;
      if (seen[first] || phi[first] >= 0) continue;
      const [i0, j0, k0] = [corner[0] + (m & 7), corner[1] + ((m >> 3) & 7), corner[2] + (m >> 6)];
      if (isBare(i0, j0, k0)) continue;
      // What the part reaches is looked at in the order it was met in.
      const places = [i0, j0, k0];
      const nodes = [first];
      let touches = false;
      seen[first] = 1;
      for (let next = 0; next < places.length; next += 3) {
        for (const [a, c, e] of FACES) {
          const [i, j, k] = [places[next] + a, places[next + 1] + c, places[next + 2] + e];
          const n = nodeAt(grid, i, j, k);
          if (n < 0 || seen[n] || phi[n] >= 0) continue;
          if (isBare(i, j, k) || !changed[grid.brickOf[Math.floor(n / BRICK_NODES)]]) {
            touches = true;
            continue;
          }
          seen[n] = 1;
          places.push(i, j, k);
          nodes.push(n);
        }
      }
      if (touches) continue;
      for (const n of nodes) phi[n] = grid.stepMm / 2;
      dropped += nodes.length;
    }
  }
  return dropped;
}
