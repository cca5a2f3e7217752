/** The arithmetic of materials, which answers to every key on the page: quantities with pots, buying, and all shells compared. */
import { EMPTY_STORE, storedEntries } from "../core/materials/stock.ts";
import { newPlan } from "../core/plan/document/document.ts";
import { buyingRows } from "../core/takeoff/buying.ts";
import { compareSilicones } from "../core/takeoff/compareJackets.ts";
import { compareShells } from "../core/takeoff/compareShells.ts";
import { touchingOf } from "../core/takeoff/contacts.ts";
import { cheapestPacks } from "../core/takeoff/packs.ts";
import { potRows } from "../core/takeoff/pots.ts";
import { TYPICAL_RATES } from "../core/takeoff/rates.ts";
import { takeoff } from "../core/takeoff/takeoff.ts";
import type { JacketTotals, PartingTotals } from "../core/takeoff/totals.ts";
import type { PartingRow } from "./parting.ts";

const TODAY = "2026-11-30";
const SECTIONS = 8;
const jacket: JacketTotals = {
  ...{ siliconeG: 90_000, outerAreaMm2: 9e6, stopsMm3: 0, footClayMm3: 1e6 },
  coats: [8000, 28_000, 28_000, 26_000].map((massG) => ({ massG })),
};
const parting: PartingTotals = {
  sections: Array.from({ length: SECTIONS }, (_, k) => ({ number: k + 1, areaMm2: 1.1e6, lineMm: 5000 })),
  ...{ partingLengthMm: 20_000, fillMm3: 2e6, clayMm3: 1e6, plugMm3: 0 },
};

export async function benchMaterials(report: (row: PartingRow) => void): Promise<void> {
  const document = newPlan();
  const timed = <T>(stage: string, size: string, work: () => T): T => {
    // Once to warm up: what is measured is what an edit costs.
    work();
    const started = performance.now();
    const value = work();
    report({ stage, size, ms: performance.now() - started, ratio: null });
    return value;
  };
  const taken = timed("quantities, pots and sundries", `${SECTIONS} sections`, () =>
    takeoff(document, jacket, parting, TYPICAL_RATES),
  );
  timed("pots alone", `${SECTIONS} sections`, () => potRows(document, parting, taken));
  timed("buying list", `${taken.materials.length} lines`, () => buyingRows(taken.materials, EMPTY_STORE, TODAY));
  timed("what must not touch", "a plan", () => touchingOf(document));
  const totals = { jacket, parting, rates: TYPICAL_RATES, today: TODAY };
  timed("shells and silicones compared", "7 and 7", () => [
    compareShells(document, totals),
    compareSilicones(document, totals),
  ]);
  const sold = storedEntries(EMPTY_STORE).filter(({ packs }) => packs.length > 0);
  timed("packs", "60 lines", () => sold.slice(0, 60).map(({ packs }, k) => cheapestPacks(37.3 + 11 * k, packs)));
}
