/** What ribs and poles are built of across their length, and what a shell may span without them. */
import { shellSystem } from "../shell/index.ts";
import type { Layup } from "../shell/layup.ts";
import { spanLimitMm } from "../shell/span.ts";
import type { PoleMaterial, RibSettings } from "./settings.ts";

/** A rib across its length: half an ellipse over the shell, and in it what is none of the shell's layers. */
export interface RibShape {
  /** How thick its pole is across, or how high its core, mm. */
  readonly poleMm: number;
  readonly widthMm: number;
  /** How far it stands out of the shell. */
  readonly heightMm: number;
  /** What is laid up of the shell's own layers. */
  readonly laidMm2: number;
  /** The pole or the core of foam that they are laid over. */
  readonly coreMm2: number;
  readonly coreGPerMm: number;
}

/** Corners of its round. */
export const ROUND = 6;
/** It begins within the shell, mm. */
export const EMBEDDED_MM = 4;
/** What is laid over a pole fills the corners beside it, so far out, mm. */
const FILLET_MM = 7.5;
const FOAM_G_PER_MM3 = 30e-6;

/** What poles are: tubes with walls of so many mm, bars where there is none; and what their material weighs, g/mm3. */
const POLES: Readonly<Record<PoleMaterial, { readonly wallMm: number | null; readonly gPerMm3: number }>> = {
  stainless: { wallMm: 1.5, gPerMm3: 7.9e-3 },
  aluminium: { wallMm: 1.5, gPerMm3: 2.7e-3 },
  "glass-fibre": { wallMm: 3, gPerMm3: 1.9e-3 },
  steel: { wallMm: 1.5, gPerMm3: 7.85e-3 },
  timber: { wallMm: null, gPerMm3: 0.55e-3 },
};

/** @returns what a pole weighs, g/mm */
function poleGPerMm(pole: PoleMaterial, poleMm: number): number {
  const { wallMm, gPerMm3 } = POLES[pole];
  return gPerMm3 * tubeMm2(poleMm, wallMm ?? poleMm / 2);
}

/** The face of a tube cut across, mm2; with walls half as thick as it is, of a bar. */
function tubeMm2(poleMm: number, wallMm: number): number {
  return Math.PI * wallMm * (poleMm - wallMm);
}

export function ribShape({ kind, pole, poleMm }: RibSettings, { system }: Pick<Layup, "system">): RibShape {
  const { coverMm, isSolid } = shellSystem(system).rib;
  const widthMm = poleMm + 2 * (coverMm.value + FILLET_MM);
  const heightMm = poleMm + coverMm.value;
  const outlineMm2 = overShellMm2(widthMm, heightMm);
  const ofFoam = isSolid ? 0 : halfRoundMm2(widthMm - 2 * coverMm.value, heightMm - coverMm.value);
  const coreMm2 = kind === "poles" ? tubeMm2(poleMm, poleMm / 2) : ofFoam;
  const coreGPerMm = kind === "poles" ? poleGPerMm(pole, poleMm) : ofFoam * FOAM_G_PER_MM3;
  return { poleMm, widthMm, heightMm, laidMm2: outlineMm2 - coreMm2, coreMm2, coreGPerMm };
}

/** Half an ellipse of straight pieces, mm2. */
function halfRoundMm2(widthMm: number, heightMm: number): number {
  return (ROUND / 2) * Math.sin(Math.PI / ROUND) * (widthMm / 2) * heightMm;
}

/** Of such a half ellipse that begins within the shell, what stands out of it, mm2. */
function overShellMm2(widthMm: number, heightMm: number): number {
  const wholeMm = heightMm + EMBEDDED_MM;
  const turn = Math.PI / ROUND;
  // Its lowest pieces lean in as they go up.
  const leansIn = (1 - Math.cos(turn)) / (2 * Math.sin(turn) * wholeMm);
  return halfRoundMm2(widthMm, wholeMm) - widthMm * EMBEDDED_MM * (1 - leansIn * EMBEDDED_MM);
}

/** A rib as it was laid out, by which is known where it stands. */
export interface RibCourse {
  /** Along the jacket, mm. */
  readonly lengthMm: number;
  /**
   * At equal steps from its one end to the other, how far it is from flanges, rims and the ribs that were laid before it, mm.
   * Plans of before do not know it: theirs end at flanges, and nothing crosses them.
   */
  readonly clearMm?: readonly number[];
}

/**
 * The stretches of a rib that stand: it ends half its width before a flange, a rim or a rib that was laid before it, and goes
 * on behind one that it crosses. Stretches shorter than it is wide are left out.
 * @param flangeMm how thick flanges are
 * @returns from where to where along it, mm
 */
export function stretchesMm(
  { lengthMm, clearMm }: RibCourse,
  flangeMm: number,
  { widthMm }: RibShape,
): [number, number][] {
  const offMm = flangeMm + widthMm / 2;
  if (!clearMm) return 2 * offMm < lengthMm ? [[offMm, lengthMm - offMm]] : [];
  const stepMm = lengthMm / (clearMm.length - 1);
  const stretches: [number, number][] = [];
  let fromMm = clearMm[0] > offMm ? 0 : null;
  for (let k = 1; k < clearMm.length; k++) {
    const [before, here] = [clearMm[k - 1], clearMm[k]];
    if (before > offMm === here > offMm) continue;
    const turnsMm = (k - 1 + (offMm - before) / (here - before)) * stepMm;
    if (fromMm !== null) stretches.push([fromMm, turnsMm]);
    fromMm = here > offMm ? turnsMm : null;
  }
  if (fromMm !== null) stretches.push([fromMm, lengthMm]);
  return stretches.filter(([from, to]) => to - from >= widthMm);
}

/** A stretch of a rib that stands on a shell. */
export interface StandingRib {
  /** Along the jacket, mm. */
  readonly lengthMm: number;
  /** By what the jacket bends along it, radians; above 0 where it is round. */
  readonly turnRad: number;
}

/** The middle of half an ellipse lies so high, as a share of its height. */
const MIDDLE_SHARE = 4 / (3 * Math.PI);

/** What is laid up of it, mm3: over what is round it is longer than the jacket under it (Pappus). */
export function ribLaidMm3({ lengthMm, turnRad }: StandingRib, shellMm: number, shape: RibShape): number {
  return shape.laidMm2 * Math.max(0, lengthMm + turnRad * (shellMm + MIDDLE_SHARE * shape.heightMm));
}

/** The pole or the core of a stretch. */
export interface RibCore {
  /** How long it is cut, mm. */
  readonly coreMm: number;
  readonly coreMm3: number;
  /** What it weighs, g. */
  readonly coreG: number;
}

export function coreOf({ lengthMm, turnRad }: StandingRib, shellMm: number, shape: RibShape): RibCore {
  const coreMm = Math.max(0, lengthMm + turnRad * (shellMm + shape.poleMm / 2));
  return { coreMm, coreMm3: coreMm * shape.coreMm2, coreG: coreMm * shape.coreGPerMm };
}

/** What a shell may span, mm: as was decided, else by its strength. */
export function spanFor({ ribs }: { readonly ribs: RibSettings }, layup: Layup): number {
  return ribs.spanMm ?? spanLimitMm(layup);
}
