/** What a parting costs at a workshop's rates: what the search for sections makes least. */
import { WEIGHED_AT_G_PER_CM3 } from "../materials/silicone.ts";
import type { PartingPrices, PricedPlan } from "../parting/search/price.ts";
import type { PlanDocument } from "../plan/document/document.ts";
import type { SearchRates } from "../plan/document/searchRates.ts";
import { shellSystem, shellTakeoff } from "../shell/index.ts";
import { MM2_PER_M2, MM3_PER_CM3, MM3_PER_LITRE } from "../units/index.ts";

/** Prices in minor units of money. */
export function partingPrices(document: PlanDocument, rates: SearchRates): PartingPrices {
  const perMinute = rates.hourMinor / 60;
  const { brief, shell } = document;
  const metre = shellTakeoff([shell], { areasMm2: [MM2_PER_M2], flangeAreasMm2: [0] });
  return {
    fillPerMm3: (WEIGHED_AT_G_PER_CM3 / MM3_PER_CM3 / 1000) * rates.siliconePerKgMinor,
    laidFillPerMm3: (rates.fillMinPerL / MM3_PER_LITRE) * perMinute,
    wallPerMm: (rates.wallMinPerM / 1000) * perMinute,
    finishPerMm: (rates.finishMinPerM / 1000) * perMinute * brief.edition,
    keepClearWeight: rates.keepClearWeight,
    setupPerSection: rates.sectionSetupMin * perMinute,
    waitPerSection: (shellSystem(shell.system).setMin.value / 60) * rates.waitHourMinor,
    lift: rates.liftMin * perMinute,
    shellGPerMm2: metre.sectionMassesG[0] / MM2_PER_M2,
    liftLimitG: brief.liftLimitKg * 1000,
    overLiftPerG: rates.overLiftPerKgMinor / 1000,
    handlingMm: brief.handlingMm,
    overHandlingPerMm: rates.overHandlingPerMMinor / 1000,
  };
}

/** Hours of hands and of waiting that a parting's sections and lines take, the edition's finishing with them. */
export function partingHours(
  plan: Pick<PricedPlan, "lineMm" | "lifted"> & { readonly sections: { readonly length: number } },
  document: PlanDocument,
  rates: SearchRates,
): number {
  const metres = plan.lineMm / 1000;
  const minutes =
    metres * (rates.wallMinPerM + rates.finishMinPerM * document.brief.edition) +
    plan.sections.length * (rates.sectionSetupMin + shellSystem(document.shell.system).setMin.value) +
    (plan.lifted ? rates.liftMin : 0);
  return minutes / 60;
}
