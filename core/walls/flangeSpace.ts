/** The space that flanges take up beside their walls, and how deep a place lies in one. Space of the caller: mm, z up. */
import { type Direction, dot } from "../space/directions.ts";
import { alongAt, leftOf } from "./lean.ts";
import type { Draft } from "./wallGround.ts";

/** A flange between two rulings of its wall, on either side of it. */
interface Stretch {
  readonly wall: number;
  readonly ruling: number;
  readonly foot: Direction;
  /** Along the wall to the next ruling. */
  readonly along: Direction;
  readonly out: Direction;
  /** The wall's normal, towards the section on its left. */
  readonly left: Direction;
  readonly reachMm: number;
}

/** Where a place lies in a flange. */
export interface InFlange {
  /** How deep, mm. */
  readonly depthMm: number;
  readonly wall: number;
  readonly ruling: number;
  /** How far out along the ruling, mm. */
  readonly outMm: number;
}

/** Stretches are found by the cube of this side that they run through, mm. */
const CUBE_MM = 40;
/** Cubes along an axis, so that each has a number; places farther out share those of others. */
const CUBES = 2 ** 16;

export class FlangeSpace {
  private readonly cubes = new Map<number, Stretch[]>();

  /**
   * @param reachesMm how far the flanges of every wall reach at every ruling, mm
   * @param flangeMm how thick they are, mm
   */
  constructor(
    private readonly drafts: readonly Draft[],
    reachesMm: readonly ArrayLike<number>[],
    private readonly flangeMm: number,
  ) {
    drafts.forEach(({ line, foot, out }, wall) => {
      const count = foot.length / 3;
      for (let k = 0; k < (line.closed ? count : count - 1); k++) {
        const after = (k + 1) % count;
        const at = (values: Float64Array, n: number): Direction => [
          values[3 * n],
          values[3 * n + 1],
          values[3 * n + 2],
        ];
        const [own, next, way] = [at(foot, k), at(foot, after), at(out, k)];
        const along: Direction = [next[0] - own[0], next[1] - own[1], next[2] - own[2]];
        const reachMm = Math.min(reachesMm[wall][k], reachesMm[wall][after]);
        const left = leftOf(alongAt(foot, k, line.closed), way);
        this.add({ wall, ruling: k, foot: own, along, out: way, left, reachMm });
      }
    });
  }

  /**
   * Where a place lies deepest in a flange that is looked at; null where it lies in none.
   * @param counts is the flange of a section beside a ruling looked at? Sections by their place in the order they are built.
   */
  at(place: ArrayLike<number>, counts: (section: number, wall: number, ruling: number) => boolean): InFlange | null {
    const own = this.cubes.get(cubeOf(place[0] / CUBE_MM, place[1] / CUBE_MM, place[2] / CUBE_MM));
    let deepest: InFlange | null = null;
    for (const { wall, ruling, foot, along, out, left, reachMm } of own ?? []) {
      const [x, y, z] = [place[0] - foot[0], place[1] - foot[1], place[2] - foot[2]];
      const share = (x * along[0] + y * along[1] + z * along[2]) / (dot(along, along) || 1);
      if (share < 0 || share > 1) continue;
      const asideMm = x * left[0] + y * left[1] + z * left[2] - share * dot(along, left);
      const outMm = x * out[0] + y * out[1] + z * out[2] - share * dot(along, out);
      const fromWallMm = Math.abs(asideMm);
      const depthMm = Math.min(fromWallMm, this.flangeMm - fromWallMm, reachMm - outMm, outMm);
      if (depthMm <= (deepest?.depthMm ?? 0)) continue;
      if (counts(this.drafts[wall].line.sections[asideMm >= 0 ? 0 : 1], wall, ruling))
        deepest = { depthMm, wall, ruling, outMm };
    }
    return deepest;
  }

  private add(stretch: Stretch): void {
    const { foot, along, out, left, reachMm } = stretch;
    const corners = [0, 1].flatMap((share) =>
      [0, reachMm].flatMap((mm) =>
        [-this.flangeMm, this.flangeMm].map((off) =>
          [0, 1, 2].map((a) => foot[a] + share * along[a] + mm * out[a] + off * left[a]),
        ),
      ),
    );
    const [low, high] = [Math.min, Math.max].map((most) =>
      [0, 1, 2].map((a) => Math.floor(most(...corners.map((corner) => corner[a])) / CUBE_MM)),
    );
    for (let x = low[0]; x <= high[0]; x++) {
      for (let y = low[1]; y <= high[1]; y++) {
        for (let z = low[2]; z <= high[2]; z++) {
          const held = this.cubes.get(cubeOf(x, y, z));
          if (held) held.push(stretch);
          else this.cubes.set(cubeOf(x, y, z), [stretch]);
        }
      }
    }
  }
}

function cubeOf(x: number, y: number, z: number): number {
  const number = (cube: number) => (Math.floor(cube) + CUBES / 2) % CUBES;
  return number(x) + CUBES * (number(y) + CUBES * number(z));
}
