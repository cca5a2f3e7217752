/** The last look at a plan's geometry before it leaves the core. */
import type { Jacket } from "../../jacket/jacket.ts";
import { checkFigures } from "../../units/index.ts";
import type { ProvenParting } from "./parting.ts";

/** What is looked at of a plan. */
interface Figured {
  readonly jacket: Jacket;
  readonly parting: ProvenParting;
}

/**
 * @returns the plan, as it was given
 * @throws ImpossibleFigure where an area, a volume, a mass or a length is less than nothing or no number
 */
export function checked<T extends Figured>(plan: T): T {
  const { jacket, parting } = plan;
  checkFigures([
    ["silicone of the jacket", jacket.siliconeMm3],
    ["mass of the jacket", jacket.siliconeG],
    ["area of the jacket", jacket.outerAreaMm2],
    ["clay at the foot", jacket.footClayMm3],
    ...jacket.coats.map(({ volumeMm3 }, k): [string, number] => [`silicone of coat ${k + 1}`, volumeMm3]),
    ["fill", parting.fillMm3],
    ["length of the parting lines", parting.partingLengthMm],
    ...parting.sections.flatMap(({ number, areaMm2, fillMm3, biteMm, travelMm }): [string, number][] => [
      [`area of section ${number}`, areaMm2],
      [`fill of section ${number}`, fillMm3],
      [`bite of section ${number}`, biteMm],
      [`travel of section ${number}`, travelMm],
    ]),
  ]);
  return plan;
}
