/**
 * Rulings that do not cross. Where a line runs through a hollow, ways out square to the jacket close in on each other and
 * would meet before the flange is as wide as it should be. There they are turned towards each other's mean, over as much of
 * the line as it takes (Laplacian smoothing, of the places that fold alone): the wall stays where it is, and its rulings
 * cross the hollow side by side.
 */
import { RULING_MM } from "./wallGround.ts";

/** Rulings stand clear of each other up to this width, mm. */
const CLEAR_WIDTH_MM = 70;
/** The outer edge keeps this share of the foot's length at least. */
const LEAST_SHARE = 0.2;
/** Beside a place that folds, rulings are turned within so much of it, mm, */
const BESIDE_MM = 15;
/** and so many times at most. */
const ROUNDS = 400;

/** Turns rulings where they would cross. Changes `out`. @param fixed places whose rulings stay */
export function unfold(foot: Float64Array, out: Float64Array, closed: boolean, fixed: (k: number) => boolean): void {
  const count = foot.length / 3;
  const reach = Math.round(BESIDE_MM / RULING_MM);
  const at = (k: number) => (closed ? (k + count) % count : Math.max(0, Math.min(count - 1, k)));
  for (let round = 0; round < ROUNDS; round++) {
    const turned = new Uint8Array(count);
    let any = false;
    for (let k = 0; k < (closed ? count : count - 1); k++) {
      if (!folds(foot, out, k, at(k + 1))) continue;
      any = true;
      for (let n = k - reach; n <= k + 1 + reach; n++) turned[at(n)] = 1;
    }
    if (!any) return;
    const before = out.slice();
    for (let k = 0; k < count; k++) {
      if (!turned[k] || fixed(k)) continue;
      const [low, high] = [3 * at(k - 1), 3 * at(k + 1)];
      let length = 0;
      for (let a = 0; a < 3; a++) {
        out[3 * k + a] = before[low + a] + 2 * before[3 * k + a] + before[high + a];
        length += out[3 * k + a] ** 2;
      }
      length = Math.sqrt(length);
      for (let a = 0; a < 3; a++) out[3 * k + a] = length > 1e-9 ? out[3 * k + a] / length : before[3 * k + a];
    }
  }
}

/** Would the outer edge be too short, or run backwards, between a ruling and the next? */
function folds(foot: Float64Array, out: Float64Array, k: number, next: number): boolean {
  let [length2, head] = [0, 0];
  for (let a = 0; a < 3; a++) {
    const leg = foot[3 * next + a] - foot[3 * k + a];
    length2 += leg * leg;
    head += leg * (leg + CLEAR_WIDTH_MM * (out[3 * next + a] - out[3 * k + a]));
  }
  return head < LEAST_SHARE * length2;
}
