/**
 * The plan of last resort: two contrary pulls, everything filled that lies between walls of the body along them.
 * What is left is met by every line along the pulls in one stretch, so its near half leaves along one of them and its far
 * half along the other. It costs what it fills; the pair that fills least is taken.
 */

import { filledBy } from "../../mesh/lists.ts";
import { vertexNormals } from "../../mesh/normals.ts";
import type { Direction } from "../../space/directions.ts";
import { columnFrame, visitColumns } from "../../survey/columns.ts";
import type { PartingPrices } from "./price.ts";
import type { SuggestRequest } from "./request.ts";
import type { Suggestion } from "./trial.ts";

/** Pulls that rise or sink no more than this, as a sine, are level: on a board neither of a pair leaves downwards. */
const LEVEL = 0.02;

/** @param mayLift may a section leave downwards past the board? Else only level pairs are looked at. */
export function contraryPair(
  { coarse, spacingMm, boardMm }: Pick<SuggestRequest, "coarse" | "spacingMm" | "boardMm">,
  directions: readonly Direction[],
  mayLift: boolean,
  prices: Pick<PartingPrices, "fillPerMm3" | "lift">,
): Suggestion {
  let best: Direction = [1, 0, 0];
  let least = Infinity;
  for (const pull of directions) {
    // One of each pair is enough.
    if (pull[0] < 0 || (pull[0] === 0 && (pull[1] < 0 || (pull[1] === 0 && pull[2] < 0)))) continue;
    const level = boardMm === null || Math.abs(pull[2]) < LEVEL;
    if (!level && !mayLift) continue;
    const price = betweenMm3(coarse, pull, spacingMm) * prices.fillPerMm3 + (level ? 0 : prices.lift);
    if (price >= least) continue;
    least = price;
    best = pull;
  }
  const { normals } = vertexNormals(coarse);
  const [x, y, z] = best;
  const label = filledBy(new Uint8Array(normals.length / 3), (v) =>
    x * normals[3 * v] + y * normals[3 * v + 1] + z * normals[3 * v + 2] >= 0 ? 0 : 1,
  );
  return {
    pulls: [best, [-x, -y, -z]],
    label,
    energy: least,
    handling: 0,
    held: [null, null],
    prices: [],
  };
}

/** The space between walls of a body along a direction, mm3. */
function betweenMm3(mesh: SuggestRequest["coarse"], pull: Direction, spacingMm: number): number {
  let sum = 0;
  visitColumns(mesh, columnFrame(mesh, pull, 2 * spacingMm), null, (_line, from, to, first) => {
    if (first >= 0) sum += to - from;
  });
  return sum * (2 * spacingMm) ** 2;
}
