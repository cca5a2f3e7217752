/** The kernels a helper thread can run. A kernel that is to be shared out stands in this list, or its team fails. */
import { thinKernel, thinKernelReady } from "./display/thin.ts";
import { bendKernel, featureKernel } from "./field/closing.ts";
import { measureKernel, voteKernel } from "./field/distance.ts";
import { seedKernel } from "./field/features.ts";
import { surfaceKernel } from "./field/isosurface.ts";
import { ownerKernel, walkKernel } from "./field/nearest.ts";
import { passKernel } from "./field/transform.ts";
import { levelKernel } from "./jacket/levels.ts";
import type { Kernel } from "./job/team.ts";
import { trialKernel } from "./parting/search/alternate.ts";
import { patchKernel } from "./parting/search/pricing.ts";
import { biteKernel } from "./release/bite.ts";
import { blockKernel } from "./release/blocks.ts";
import { blockedKernel, hullKernel } from "./release/hull.ts";
import { redistanceKernel } from "./release/redistance.ts";
import { shadowKernel } from "./release/shadows.ts";
import { besideKernel, spaceKernel } from "./solids/cellBodies.ts";
import { surveyKernel } from "./survey/survey.ts";

const all = [
  bendKernel,
  besideKernel,
  biteKernel,
  blockKernel,
  blockedKernel,
  featureKernel,
  hullKernel,
  levelKernel,
  measureKernel,
  ownerKernel,
  patchKernel,
  passKernel,
  redistanceKernel,
  seedKernel,
  shadowKernel,
  spaceKernel,
  surfaceKernel,
  surveyKernel,
  thinKernel,
  trialKernel,
  voteKernel,
  walkKernel,
];

export const kernels: ReadonlyMap<string, Kernel<never>> = new Map(
  all.map((kernel) => [kernel.name, kernel as Kernel<never>]),
);

/** Kept once a thread can run all of them. */
export const kernelsReady: Promise<unknown> = thinKernelReady;
