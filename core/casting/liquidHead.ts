/**
 * The push of a liquid on the sections that hold it:
 *
 *   p = rho g h,   F = rho g (sum over the wetted wall of h n dA)
 *
 * h the depth under the liquid's level, n out of the cavity. Two sections that share walls are parted along the mean normal of
 * those: by the greater of what pushes either of them that way, for cautious figures. An estimate: shells bend, and what sets
 * pushes less with every minute.
 */
import type { AlongWall } from "../flange/along.ts";
import type { Fastenings } from "../flange/fastenings.ts";
import { liquidGPerCm3 } from "../materials/castMaterial.ts";
import { type CastingSettings, CHARGE_SHARE } from "./settings.ts";
import { SLICE_FIGURES, SLICES, type Wetted } from "./wetted.ts";

const GRAVITY = 9.81;
/** From g/cm3 and mm3 of depth times area to newtons: kg per mm3, metres per second squared. */
const TO_NEWTONS = 1e-6 * GRAVITY;

export interface PairLoad {
  readonly sections: readonly [number, number];
  /** What parts the two, N. */
  readonly forceN: number;
  /** Bolts along the walls they share. */
  readonly bolts: number;
  /** Null where there is none. */
  readonly perBoltN: number | null;
  /** How many bolts it takes at what one is let bear. */
  readonly neededBolts: number;
}

export interface LiquidHead {
  /** Greatest depth, mm, and the pressure there, kPa. */
  readonly depthMm: number;
  readonly pressureKPa: number;
  readonly densityGPerCm3: number;
  readonly pairs: readonly PairLoad[];
}

export interface HeadRequest {
  readonly wetted: Wetted;
  readonly walls: readonly { readonly along: AlongWall; readonly fastenings: Fastenings }[];
  readonly casting: CastingSettings;
  readonly castMaterial: string;
  /** Slushed or rotated, only the charge stands in the mould. */
  readonly isCharge: boolean;
}

export function liquidHead({ wetted, walls, casting, castMaterial, isCharge }: HeadRequest): LiquidHead {
  const density = casting.densityGPerCm3 ?? liquidGPerCm3(castMaterial);
  const share = isCharge ? Math.min(casting.fillShare, CHARGE_SHARE) : casting.fillShare;
  const depthMm = depthOf(wetted, casting, share);
  const forces = wetted.slices.map((own) =>
    forceOn(own, wetted, casting, depthMm).map((sum) => sum * density * TO_NEWTONS),
  );
  const pairs = new Map<string, { sections: [number, number]; normal: number[]; bolts: number }>();
  for (const { along, fastenings } of walls) {
    const [left, right] = along.wall.sections;
    const sections: [number, number] = [Math.min(left, right), Math.max(left, right)];
    const pair = pairs.get(sections.join()) ?? { sections, normal: [0, 0, 0], bolts: 0 };
    pairs.set(sections.join(), pair);
    // Towards the section with the lower number.
    const sign = left < right ? 1 : -1;
    for (let k = 0; k + 1 < along.alongMm.length; k++) {
      const leg = along.alongMm[k + 1] - along.alongMm[k];
      along.normal(along.alongMm[k]).forEach((x, a) => {
        pair.normal[a] += sign * leg * x;
      });
    }
    pair.bolts += fastenings.bolts.filter(({ access }) => access.kind !== "none").length;
  }
  return {
    depthMm,
    pressureKPa: density * 1e-3 * GRAVITY * depthMm,
    densityGPerCm3: density,
    pairs: [...pairs.values()].map((pair) => loadOf(pair, forces, casting.boltLoadN)),
  };
}

function loadOf(
  { sections, normal, bolts }: { sections: [number, number]; normal: number[]; bolts: number },
  forces: readonly number[][],
  boltLoadN: number,
): PairLoad {
  const length = Math.hypot(...normal) || 1;
  const along = (force: readonly number[] | undefined, sign: number) =>
    force ? sign * force.reduce((sum, f, a) => sum + (f * normal[a]) / length, 0) : 0;
  const [low, high] = sections;
  const forceN = Math.max(0, along(forces[low - 1], 1), along(forces[high - 1], -1));
  return {
    sections,
    forceN,
    bolts,
    perBoltN: bolts > 0 ? forceN / bolts : null,
    neededBolts: Math.ceil(forceN / boltLoadN),
  };
}

/** Depth of the liquid where so much of the cavity is full, mm. */
function depthOf(wetted: Wetted, { position }: CastingSettings, share: number): number {
  const whole = wetted.highMm - wetted.lowMm;
  if (share >= 1) return whole;
  const full = volumeTo(wetted, position, whole);
  let [low, high] = [0, whole];
  for (let round = 0; round < 30; round++) {
    const middle = (low + high) / 2;
    if (volumeTo(wetted, position, middle) < share * full) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * What of the cavity lies below a depth, mm3: the columns between the lower and the upper parts of its wall, cut off at the
 * level. Its open foot lies at its lowest place: it adds nothing as the piece stands, and foot up it is above the level.
 */
function volumeTo({ lowMm, highMm, slices }: Wetted, position: CastingSettings["position"], depthMm: number): number {
  const up = position === "as-it-stands";
  const level = up ? lowMm + depthMm : highMm - depthMm;
  let sum = 0;
  for (const own of slices) {
    for (let n = 0; n < SLICES; n++) {
      const [area, moment] = [own[SLICE_FIGURES * n + 2], own[SLICE_FIGURES * n + 5]];
      const below = middleOf(n, lowMm, highMm) < level;
      if (up) sum += below ? moment - lowMm * area : (level - lowMm) * area;
      else if (!below) sum += moment - level * area;
    }
  }
  return sum;
}

/** Height of the middle of a slice, mm. */
function middleOf(n: number, lowMm: number, highMm: number): number {
  return lowMm + ((n + 0.5) * (highMm - lowMm)) / SLICES;
}

/** The sum of h n dA over the wetted wall of a section, mm3 by axis. */
function forceOn(
  own: readonly number[],
  { lowMm, highMm }: Wetted,
  { position }: CastingSettings,
  depthMm: number,
): number[] {
  const up = position === "as-it-stands";
  const level = up ? lowMm + depthMm : highMm - depthMm;
  const out = [0, 0, 0];
  for (let n = 0; n < SLICES; n++) {
    const middle = middleOf(n, lowMm, highMm);
    if (up ? middle > level : middle < level) continue;
    for (let a = 0; a < 3; a++) {
      const [area, moment] = [own[SLICE_FIGURES * n + a], own[SLICE_FIGURES * n + 3 + a]];
      out[a] += up ? level * area - moment : moment - level * area;
    }
  }
  return out;
}
