/**
 * The fills of a plan, part by part: what of the filled body is not jacket, in connected parts, each made of what suits
 * where it lies. Thin ones are silicone, with the thick coats; thicker ones clay laid over the jacket under the shell;
 * those that close a gap between two walls of the piece a web of clay, put in before the first coat.
 */
import { BRICK_NODES, type BrickGrid, brickCorner, nodeAt } from "../field/grid.ts";
import type { BodyData } from "./body.ts";
import type { Cells } from "./cells.ts";

export const FILL_KINDS = ["silicone", "clay", "web"] as const;
/** What a fill is made of: silicone of the thick coats, clay over the jacket, or a web of clay under it. */
export type FillKind = (typeof FILL_KINDS)[number];

export interface FillPart {
  readonly kind: FillKind;
  readonly volumeMm3: number;
  /** How far it stands off the jacket at most, mm. */
  readonly thickMm: number;
  /** Its middle. */
  readonly at: readonly [number, number, number];
  /** Of its volume, what lies in the cell of each section, mm3. */
  readonly bySection: readonly number[];
}

export interface FillRequest {
  readonly filled: BodyData;
  /** The jacket before any fill. */
  readonly bare: { readonly grid: BrickGrid; readonly phi: Float32Array };
  readonly cells: Cells;
  readonly sections: number;
  /** The volume of all fills together, mm3. */
  readonly totalMm3: number;
  /** Silicone is laid no thicker than this, mm. */
  readonly mostSiliconeMm: number;
}

/** Parts smaller than this are told with the largest one, mm3. */
const LEAST_PART_MM3 = 2000;
/** A part closes a gap where so much of its surface is jacket. */
const WEB_SHARE = 0.6;

interface Part {
  nodes: number;
  thickMm: number;
  readonly sum: [number, number, number];
  readonly bySection: number[];
  /** Faces of its nodes that look at the jacket, and at air. */
  atJacket: number;
  atAir: number;
}

/** @returns the parts, largest first; their volumes add up to the total */
export function fillParts(request: FillRequest): FillPart[] {
  const { totalMm3, mostSiliconeMm } = request;
  const parts = partsOf(request);
  const nodes = parts.reduce((sum, part) => sum + part.nodes, 0);
  if (nodes === 0 || totalMm3 <= 0) return [];
  const perNode = totalMm3 / nodes;
  parts.sort((a, b) => b.nodes - a.nodes);
  const told = parts.filter((part, k) => k === 0 || part.nodes * perNode >= LEAST_PART_MM3);
  for (const part of parts.slice(told.length)) {
    told[0].nodes += part.nodes;
    part.bySection.forEach((count, s) => {
      told[0].bySection[s] += count;
    });
  }
  return told.map(({ nodes: count, thickMm, sum, bySection, atJacket, atAir }): FillPart => {
    const closes = atJacket / Math.max(1, atJacket + atAir) > WEB_SHARE;
    const kind = thickMm <= mostSiliconeMm ? "silicone" : closes ? "web" : "clay";
    const own = bySection.reduce((total, n) => total + n, 0) || 1;
    const whole = sum.map((x) => x / Math.max(1, own)) as [number, number, number];
    return {
      ...{ kind, thickMm },
      volumeMm3: count * perNode,
      at: whole,
      bySection: bySection.map((n) => n * perNode),
    };
  });
}

const STEPS = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
] as const;

/** Connected parts of the nodes that are inside the filled body and outside the jacket. */
function partsOf({ filled, bare, cells, sections }: FillRequest): Part[] {
  const { grid, phi, boardMm } = filled;
  const { originMm: o, stepMm: h } = grid;
  const bareAt = (i: number, j: number, k: number) => {
    const n = nodeAt(bare.grid, i, j, k);
    return n < 0 ? Infinity : bare.phi[n];
  };
  const isFill = (n: number, i: number, j: number, k: number) =>
    phi[n] < 0 && (boardMm === null || o[2] + h * k >= boardMm) && bareAt(i, j, k) > 0;
  const seen = new Uint8Array(phi.length);
  const corner = new Int32Array(3);
  const parts: Part[] = [];
  const stack: number[] = [];
  for (let slot = 0; slot < grid.brickOf.length; slot++) {
    brickCorner(grid, slot, corner);
    for (let m = 0; m < BRICK_NODES; m++) {
      const first = slot * BRICK_NODES + m;
      const at = [corner[0] + (m & 7), corner[1] + ((m >> 3) & 7), corner[2] + (m >> 6)];
      if (seen[first] || !isFill(first, at[0], at[1], at[2])) continue;
      const part: Part = {
        ...{ nodes: 0, thickMm: 0, sum: [0, 0, 0], atJacket: 0, atAir: 0 },
        bySection: Array.from({ length: sections }, () => 0),
      };
      seen[first] = 1;
      stack.push(at[0], at[1], at[2]);
      while (stack.length > 0) {
        const k = stack.pop() as number;
        const j = stack.pop() as number;
        const i = stack.pop() as number;
        part.nodes++;
        const [x, y, z] = [o[0] + h * i, o[1] + h * j, o[2] + h * k];
        part.sum[0] += x;
        part.sum[1] += y;
        part.sum[2] += z;
        part.bySection[cells.at(x, y, z)]++;
        const away = bareAt(i, j, k);
        if (away > part.thickMm) part.thickMm = Math.min(away, MOST_THICK_MM);
        for (const [a, b, c] of STEPS) {
          const n = nodeAt(grid, i + a, j + b, k + c);
          if (n >= 0 && isFill(n, i + a, j + b, k + c)) {
            if (seen[n]) continue;
            seen[n] = 1;
            stack.push(i + a, j + b, k + c);
          } else if (bareAt(i + a, j + b, k + c) <= 0) part.atJacket++;
          else part.atAir++;
        }
      }
      parts.push(part);
    }
  }
  return parts;
}

/** Where the jacket's field is not known a fill is at least so thick, mm. */
const MOST_THICK_MM = 60;
