/**
 * Separable exact vector distance transform on a brick grid (lower envelope of parabolas: Felzenszwalb and
 * Huttenlocher 2012; carried out on features, as in Meijster et al. 2000). One pass an axis; each pass works on
 * runs of neighbouring bricks, 64 lines at a time, so every line is independent of every other and of how the work
 * is shared out. Within the band the grid was made for, every node on the way from a feature is kept, so runs lose
 * nothing.
 *
 * Precondition: each feature lies in the cell of the node it is seeded at.
 */
import type { JobContext } from "../job/context.ts";
import { type Kernel, runsOf, SHARES } from "../job/team.ts";
import type { Features } from "./features.ts";
import { BRICK, BRICK_NODES, type BrickGrid, neighbourSlot } from "./grid.ts";

const STRIDE = [1, BRICK, BRICK * BRICK] as const;

/**
 * @param nodeFeature in: the seeds (feature number or NO_FEATURE); out: the nearest feature of every node
 * @param stage name and share of progress this takes
 */
export function propagateFeatures(
  grid: BrickGrid,
  features: Features,
  nodeFeature: Int32Array,
  ctx: JobContext,
  stage: { name: string; from: number; to: number },
): void {
  for (let axis = 0; axis < 3; axis++) {
    ctx.checkCancelled();
    const { points } = features;
    const shares = runsOf(grid.brickOf.length, SHARES).map((run) => ({ axis, grid, points, nodeFeature, ...run }));
    const [begin, span] = [stage.from + ((stage.to - stage.from) * axis) / 3, (stage.to - stage.from) / 3];
    ctx.team.run(passKernel, shares, (done) => {
      ctx.checkCancelled();
      ctx.progress(stage.name, begin + span * done);
    });
  }
}

/** One pass: the lines that begin in the bricks of slots `from` to `to`. */
interface PassShare {
  readonly axis: number;
  readonly grid: BrickGrid;
  readonly points: Float32Array;
  readonly nodeFeature: Int32Array;
  readonly from: number;
  readonly to: number;
}

export const passKernel: Kernel<PassShare> = { name: "transform pass", run: passAlong };

function passAlong({ axis, grid, points, nodeFeature, from, to }: PassShare): void {
  const step = [0, 0, 0];
  step[axis] = 1;
  const longest = grid.bricks[axis] * BRICK;
  const envelope = new Envelope(longest);
  const run: number[] = [];
  const others = [0, 1, 2].filter((a) => a !== axis);
  for (let slot = from; slot < to; slot++) {
    const brick = grid.brickOf[slot];
    if (neighbourSlot(grid, brick, -step[0], -step[1], -step[2]) >= 0) continue;
    run.length = 0;
    for (let s = slot; s >= 0; s = neighbourSlot(grid, grid.brickOf[s], step[0], step[1], step[2])) run.push(s);
    const corner = [
      (brick % grid.bricks[0]) * BRICK,
      (Math.floor(brick / grid.bricks[0]) % grid.bricks[1]) * BRICK,
      Math.floor(brick / (grid.bricks[0] * grid.bricks[1])) * BRICK,
    ];
    for (let v = 0; v < BRICK; v++) {
      for (let u = 0; u < BRICK; u++) {
        const offset = u * STRIDE[others[0]] + v * STRIDE[others[1]];
        envelope.line(
          points,
          nodeFeature,
          run,
          offset,
          axis,
          others,
          corner[axis],
          corner[others[0]] + u,
          corner[others[1]] + v,
        );
      }
    }
  }
}

/** The lower envelope of one line's parabolas, with its scratch. */
class Envelope {
  private readonly feature: Int32Array;
  private readonly place: Float64Array;
  private readonly height: Float64Array;
  /** Where the parabola begins to be the lowest. */
  private readonly begin: Float64Array;

  constructor(longest: number) {
    this.feature = new Int32Array(longest);
    this.place = new Float64Array(longest);
    this.height = new Float64Array(longest);
    this.begin = new Float64Array(longest);
  }

  line(
    points: Float32Array,
    nodeFeature: Int32Array,
    run: readonly number[],
    offset: number,
    axis: number,
    others: readonly number[],
    start: number,
    c0: number,
    c1: number,
  ): void {
    const { feature, place, height, begin } = this;
    const stride = STRIDE[axis];
    const o0 = others[0];
    const o1 = others[1];
    let top = -1;
    for (let r = 0; r < run.length; r++) {
      let n = run[r] * BRICK_NODES + offset;
      for (let k = 0; k < BRICK; k++, n += stride) {
        const f = nodeFeature[n];
        if (f < 0) continue;
        const p = points[3 * f + axis];
        const d0 = points[3 * f + o0] - c0;
        const d1 = points[3 * f + o1] - c1;
        const g = d0 * d0 + d1 * d1;
        let from = -Infinity;
        while (top >= 0) {
          const gap = p - place[top];
          if (gap <= 1e-9) {
            if (g >= height[top]) {
              from = Infinity;
              break;
            }
            top--;
            continue;
          }
          from = (p * p + g - place[top] * place[top] - height[top]) / (2 * gap);
          if (from > begin[top]) break;
          top--;
          from = -Infinity;
        }
        if (from === Infinity) continue;
        top++;
        feature[top] = f;
        place[top] = p;
        height[top] = g;
        begin[top] = top === 0 ? -Infinity : from;
      }
    }
    if (top < 0) return;
    let at = 0;
    let x = start;
    for (let r = 0; r < run.length; r++) {
      let n = run[r] * BRICK_NODES + offset;
      for (let k = 0; k < BRICK; k++, n += stride, x++) {
        while (at < top && begin[at + 1] <= x) at++;
        nodeFeature[n] = feature[at];
      }
    }
  }
}
