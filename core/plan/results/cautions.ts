/** Everything in a plan that needs the user, in plain words. */
import { inWords, MEETINGS } from "../../materials/touching/index.ts";
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
  const answered = new Set(document.touching.answers.map(({ rule }) => rule));
  const touching = touchingOf(document)
    .filter(({ rule }) => !answered.has(rule.id))
    .map(({ rule, at, between }) => `${capital(inWords(between))}, ${MEETINGS[at]}: ${rule.what} ${rule.remedy}`);
  return [
    ...warnings.map((warning) => warningInWords(warning, report.piece.boxMm, words)),
    ...heavy,
    ...poles,
    ...new Set(touching),
  ];
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
