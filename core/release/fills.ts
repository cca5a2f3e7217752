/**
 * The fills of a plan, part by part: what of the filled body is not jacket, in connected parts, each made of what suits
 * where it lies. Thin ones are silicone, with the thick coats; thicker ones clay laid over the jacket under the shell;
 * those that close a gap between two walls of the piece a web of clay, put in before the first coat. What was chosen by
 * hand for a part comes before that; a part may be left open too, and then holds what cannot leave without it.
 */
import { BRICK_NODES, type BrickGrid, brickCorner, FACES, nodeAt } from "../field/grid.ts";
import type { BodyData } from "./body.ts";
import type { Cells } from "./cells.ts";

/** So many fills may be chosen for by hand. */
export const MOST_FILL_CHOICES = 200;

export const FILL_KINDS = ["silicone", "clay", "web", "plug"] as const;
/** What a fill is made of: silicone of the thick coats, clay over the jacket, a web of clay under it, or a hard plug. */
export type FillKind = (typeof FILL_KINDS)[number];

/** What was chosen by hand for the fill at a place. */
export interface FillChoice {
  /** A place in the fill, mm. */
  readonly at: readonly [number, number, number];
  readonly kind: FillKind | "open";
}

export interface FillPart {
  readonly kind: FillKind;
  /** Was its kind chosen by hand? */
  readonly chosen: boolean;
  readonly volumeMm3: number;
  /** How far it stands off the jacket at most, mm. */
  readonly thickMm: number;
  /** How much of the jacket it lies on: where it is clay, so much of the jacket stands off the shell, mm2. */
  readonly onJacketMm2: number;
  /** How much of its surface is free: neither on the jacket nor against another part, mm2. */
  readonly freeMm2: number;
  /** A place in it, near its middle. */
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
  readonly choices: readonly FillChoice[];
}

/** Parts smaller than this are told together, at the place of the largest of them, mm3. */
const LEAST_PART_MM3 = 10_000;
/** A part closes a gap where so much of its surface is jacket. */
const WEB_SHARE = 0.6;

interface Part {
  nodes: number;
  thickMm: number;
  /** Its nodes as i, j, k. */
  readonly places: readonly number[];
  readonly bySection: number[];
  /** Faces of its nodes that look at the jacket, and at air. */
  atJacket: number;
  atAir: number;
  /** Sum of the directions of the faces that look at the jacket. */
  readonly towards: [number, number, number];
  /** The same of those that look at air. */
  readonly outwards: [number, number, number];
}

/** The fills of a plan, and which of them a place is in. */
export interface Fills {
  /** Largest first, small ones together as the last; their volumes add up to the total. */
  readonly parts: readonly FillPart[];
  /** What the fill at a place, or within a step of it, is made of; null where there is none. */
  kindAt(x: number, y: number, z: number): FillKind | null;
}

export function fillsOf(request: FillRequest): Fills {
  const {
    totalMm3,
    mostSiliconeMm,
    choices,
    filled: { grid },
  } = request;
  const parts = partsOf(request);
  const chosen = chosenFor(parts, choices, grid);
  const nodes = parts.reduce((sum, part) => sum + part.nodes, 0);
  if (nodes === 0 || totalMm3 <= 0) return { parts: [], kindAt: () => null };
  const perNode = totalMm3 / nodes;
  parts.sort((a, b) => b.nodes - a.nodes);
  // The first of the small ones stands for all of them.
  const told = parts.filter((_, k) => k === 0 || parts[k - 1].nodes * perNode >= LEAST_PART_MM3);
  const small = told[told.length - 1];
  for (const part of parts.slice(told.length)) {
    small.nodes += part.nodes;
    small.thickMm = Math.max(small.thickMm, part.thickMm);
    small.atJacket += part.atJacket;
    small.atAir += part.atAir;
    part.towards.forEach((sum, a) => {
      small.towards[a] += sum;
    });
    part.outwards.forEach((sum, a) => {
      small.outwards[a] += sum;
    });
    part.bySection.forEach((count, s) => {
      small.bySection[s] += count;
    });
  }
  const made = told.map((part): FillPart => {
    const { nodes: count, thickMm, places, bySection, atJacket, atAir, towards, outwards } = part;
    const closes = atJacket / Math.max(1, atJacket + atAir) > WEB_SHARE;
    const usual = thickMm <= mostSiliconeMm ? "silicone" : closes ? "web" : "clay";
    const wanted = chosen.get(part);
    return {
      kind: wanted && wanted !== "open" ? wanted : usual,
      chosen: wanted !== undefined && wanted !== "open",
      thickMm,
      onJacketMm2: Math.max(atJacket * FACES_TO_AREA, Math.hypot(...towards)) * grid.stepMm ** 2,
      freeMm2: Math.max(atAir * FACES_TO_AREA, Math.hypot(...outwards)) * grid.stepMm ** 2,
      volumeMm3: count * perNode,
      at: middleOf(places, grid),
      bySection: bySection.map((n) => n * perNode),
    };
  });
  const kindOf = new Map<number, FillKind>();
  parts.forEach(({ places }, k) => {
    const { kind } = made[Math.min(k, made.length - 1)];
    for (let p = 0; p < places.length; p += 3) kindOf.set(nodeAt(grid, places[p], places[p + 1], places[p + 2]), kind);
  });
  const { originMm: o, stepMm: h } = grid;
  return {
    parts: made,
    kindAt(x, y, z) {
      const [i, j, k] = [(x - o[0]) / h, (y - o[1]) / h, (z - o[2]) / h].map(Math.floor);
      for (let c = 0; c < 8; c++) {
        const kind = kindOf.get(nodeAt(grid, i + (c & 1), j + ((c >> 1) & 1), k + (c >> 2)));
        if (kind) return kind;
      }
      return null;
    },
  };
}

/**
 * The area of a surface to that of the faces of the grid's cells along it: a mean over all slopes. Of a plane the faces'
 * directions add up to its area.
 */
const FACES_TO_AREA = 2 / 3;

/** A choice is for a fill no farther away than this, mm. */
const CHOICE_REACH_MM = 20;

/** The choice for each part: of the fill that is nearest to its place. The last one counts. */
function chosenFor(parts: readonly Part[], choices: readonly FillChoice[], { originMm: o, stepMm: h }: BrickGrid) {
  const chosen = new Map<Part, FillChoice["kind"]>();
  for (const { at, kind } of choices) {
    let nearest: Part | null = null;
    let least = CHOICE_REACH_MM ** 2;
    for (const part of parts) {
      const { places: p } = part;
      for (let k = 0; k < p.length; k += 3) {
        const away = [0, 1, 2].reduce((sum, a) => sum + (o[a] + h * p[k + a] - at[a]) ** 2, 0);
        if (away >= least) continue;
        least = away;
        nearest = part;
      }
    }
    if (nearest) chosen.set(nearest, kind);
  }
  return chosen;
}

/** The choices with another one for the fill at a place, in the stead of the one it had; or with none, where `kind` is null. */
export function withChoice(
  choices: readonly FillChoice[],
  at: FillChoice["at"],
  kind: FillChoice["kind"] | null,
): FillChoice[] {
  const others = choices.filter((other) => Math.hypot(...at.map((x, a) => x - other.at[a])) > CHOICE_REACH_MM);
  return kind ? [...others, { at, kind }] : others;
}

/** The node of a part that is nearest to its middle, mm. */
function middleOf(p: readonly number[], { originMm: o, stepMm: h }: BrickGrid): [number, number, number] {
  const middle = [0, 0, 0];
  for (let k = 0; k < p.length; k++) middle[k % 3] += p[k] / (p.length / 3);
  let best = 0;
  let least = Infinity;
  for (let k = 0; k < p.length; k += 3) {
    const away = (p[k] - middle[0]) ** 2 + (p[k + 1] - middle[1]) ** 2 + (p[k + 2] - middle[2]) ** 2;
    if (away >= least) continue;
    least = away;
    best = k;
  }
  return [0, 1, 2].map((a) => o[a] + h * p[best + a]) as [number, number, number];
}

/** The nodes, as i, j, k, of the fills that were chosen to be left open. */
export function nodesLeftOpen(request: FillRequest): number[] {
  if (!request.choices.some(({ kind }) => kind === "open")) return [];
  const parts = partsOf(request);
  const chosen = chosenFor(parts, request.choices, request.filled.grid);
  return parts.flatMap((part) => (chosen.get(part) === "open" ? part.places : []));
}

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
  for (let slot = 0; slot < grid.brickOf.length; slot++) {
    brickCorner(grid, slot, corner);
    for (let m = 0; m < BRICK_NODES; m++) {
      const first = slot * BRICK_NODES + m;
      const at = [corner[0] + (m & 7), corner[1] + ((m >> 3) & 7), corner[2] + (m >> 6)];
      if (seen[first] || !isFill(first, at[0], at[1], at[2])) continue;
      // What the part reaches is looked at in the order it was met in.
      const places = [at[0], at[1], at[2]];
      const part: Part = {
        ...{ nodes: 0, thickMm: 0, places, atJacket: 0, atAir: 0, towards: [0, 0, 0], outwards: [0, 0, 0] },
        bySection: Array.from({ length: sections }, () => 0),
      };
      seen[first] = 1;
      for (let next = 0; next < places.length; next += 3) {
        const [i, j, k] = [places[next], places[next + 1], places[next + 2]];
        part.nodes++;
        const [x, y, z] = [o[0] + h * i, o[1] + h * j, o[2] + h * k];
        part.bySection[cells.at(x, y, z)]++;
        const away = bareAt(i, j, k);
        if (away > part.thickMm) part.thickMm = Math.min(away, MOST_THICK_MM);
        for (const [a, b, c] of FACES) {
          const n = nodeAt(grid, i + a, j + b, k + c);
          if (n >= 0 && isFill(n, i + a, j + b, k + c)) {
            if (seen[n]) continue;
            seen[n] = 1;
            places.push(i + a, j + b, k + c);
          } else if (bareAt(i + a, j + b, k + c) <= 0) {
            part.atJacket++;
            part.towards[0] += a;
            part.towards[1] += b;
            part.towards[2] += c;
          } else {
            part.atAir++;
            part.outwards[0] += a;
            part.outwards[1] += b;
            part.outwards[2] += c;
          }
        }
      }
      parts.push(part);
    }
  }
  return parts;
}

/** Where the jacket's field is not known a fill is at least so thick, mm. */
const MOST_THICK_MM = 60;
