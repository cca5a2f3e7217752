/**
 * What is used up at the bench, counted from the work: cups and sticks by pots, brushes by coats and layers, gloves by how often
 * hands go in, filters of masks by the hours that they are worn. Rules of thumb, all on the generous side.
 */
import { entryOf, type MaterialId } from "../materials/catalogue.ts";
import type { MaterialLine } from "../materials/property.ts";
import { layTerms, layupsInUse, type PlanDocument } from "../plan/document/document.ts";
import { shellLayers } from "../shell/index.ts";
import type { PotRow } from "./pots.ts";

/** A pair of gloves lasts so many pots, and no longer than one coat or layer. */
const POTS_A_PAIR = 3;
/** A cup takes pots of up to so much, g; larger ones are mixed in buckets, each of which lasts for so many. */
const CUP_G = 1200;
const POTS_A_BUCKET = 8;
/** A pair of filters is worn for so many hours. */
const DUST_HOURS = 30;
const VAPOUR_HOURS = 15;

/** @param handsMin hours of hands of the whole plan, minutes */
export function sundryLines(
  document: PlanDocument,
  pots: readonly PotRow[],
  handsMin: number,
  keys: number,
): MaterialLine[] {
  const { people } = document.mixing;
  const count = (rows: readonly PotRow[]) => rows.reduce((sum, { pots: own }) => sum + own.count, 0);
  const small = count(pots.filter(({ pots: own }) => own.eachG <= CUP_G));
  const large = count(pots) - small;
  const steps = pots.length;
  const hazards = new Set(
    layupsInUse(document)
      .flatMap((layup) => shellLayers(layup, layTerms(document)))
      .flatMap(({ takes }) => takes.flatMap(({ material }) => entryOf(material, document.materials.own).hazards)),
  );
  const hours = handsMin / 60;
  const line = (
    material: MaterialId,
    quantity: number,
    formula: string,
    inputs: MaterialLine["working"]["inputs"],
  ): MaterialLine => ({
    ...{ material, use: "bench", group: "sundries", unit: "pcs" },
    quantity: Math.ceil(quantity - 1e-9),
    working: { formula, inputs },
  });
  const inputs = [
    { name: "pots", value: count(pots), unit: "" },
    { name: "coats and layers", value: steps, unit: "" },
    { name: "people", value: people, unit: "" },
  ];
  const worn = { name: "hours of hands", value: hours, unit: "h" };
  return [
    line(
      "nitrile-gloves",
      people * Math.max(steps, count(pots) / POTS_A_PAIR),
      "people × coats and layers, or pots ÷ 3",
      inputs,
    ),
    line("mixing-cups", small, `pots of up to ${CUP_G} g`, inputs),
    line("buckets", large / POTS_A_BUCKET, `larger pots ÷ ${POTS_A_BUCKET}`, inputs),
    line("stir-sticks", count(pots), "one a pot", inputs),
    line("brushes", people * steps, "people × coats and layers", inputs),
    line("pins", 2 * keys, "two a key on the jacket", [{ name: "keys", value: keys, unit: "" }]),
    line(
      "dust-filters",
      hazards.has("dust") || hazards.has("fibres") ? hours / DUST_HOURS : 0,
      `hours ÷ ${DUST_HOURS}`,
      [worn],
    ),
    line(
      "vapour-filters",
      hazards.has("vapour") || hazards.has("isocyanate") ? hours / VAPOUR_HOURS : 0,
      `hours ÷ ${VAPOUR_HOURS}`,
      [worn],
    ),
  ].filter(({ quantity }) => quantity > 0);
}
