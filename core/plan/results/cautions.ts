/** Everything in a plan that needs the user, in plain words. */
import { inWords, MEETINGS, type Meeting } from "../../materials/touching/index.ts";
import { IN_PLASTER } from "../../ribs/settings.ts";
import { shellSystem } from "../../shell/index.ts";
import { touchingOf } from "../../takeoff/contacts.ts";
import { layupsInUse, type PlanDocument } from "../document/document.ts";
import type { PlanFigures } from "./figures.ts";
import { METRIC, type Words, warningInWords } from "./warnings.ts";

const POLES_RUST =
  "Steel poles rust in plaster and crack it: take stainless steel, aluminium or glass fibre, or seal them.";
const POLES_ROT =
  "Timber poles swell and rot in plaster: take stainless steel, aluminium or glass fibre, or seal them.";

export function planCautions(
  { report, takeoff, warnings }: PlanFigures,
  document: PlanDocument,
  words: Words = METRIC,
): string[] {
  const { liftLimitKg } = document.brief;
  const heavy = takeoff.sectionMassesG.flatMap((massG, k) =>
    massG > liftLimitKg * 1000
      ? [`Section ${k + 1} is over your lift limit of ${liftLimitKg} kg: two people or a hoist.`]
      : [],
  );
  const spoiled = IN_PLASTER[document.shell.ribs.pole];
  const isWet = layupsInUse(document).some(({ system }) => shellSystem(system).isWet);
  const poles =
    spoiled && isWet && takeoff.materials.some(({ material }) => material === "poles")
      ? [spoiled === "rusts" ? POLES_RUST : POLES_ROT]
      : [];
  return [
    ...warnings.map((warning) => warningInWords(warning, report.piece.boxMm, words)),
    ...heavy,
    ...poles,
    ...openTouching(document),
  ];
}

/**
 * What must not touch what in a plan and has no answer yet, in plain words.
 * @param places only what meets there: everywhere where they are left out
 */
export function openTouching(document: PlanDocument, places?: readonly Meeting[]): string[] {
  const answered = new Set(document.touching.answers.map(({ rule }) => rule));
  const open = touchingOf(document).filter(
    ({ rule, at }) => !answered.has(rule.id) && (!places || places.includes(at)),
  );
  return [
    ...new Set(
      open.map(({ rule, at, between }) => `${capital(inWords(between))}, ${MEETINGS[at]}: ${rule.what} ${rule.remedy}`),
    ),
  ];
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
