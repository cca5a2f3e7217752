/** The last look at a plan's figures before they leave the core: none of them may be what no figure can be. */
import type { Jacket } from "../jacket/jacket.ts";
import type { Sections } from "./assemble.ts";
import type { Estimate } from "./estimate.ts";

/** A figure came out as it cannot be: a fault of the program or of the scan, told rather than passed on. */
export class ImpossibleFigure extends Error {
  override readonly name = "ImpossibleFigure";
  constructor(
    readonly figure: string,
    readonly value: number,
  ) {
    super(
      `The ${figure} came out as ${value}, which cannot be. Mend the scan's holes and parts turned inside out, or try another step; nothing was kept.`,
    );
  }
}

/** What is looked at of a plan. */
interface Figured {
  readonly jacket: Jacket;
  readonly sections: Sections;
  readonly estimate: Estimate;
}

/**
 * @returns the plan, as it was given
 * @throws ImpossibleFigure where an area, a volume, a mass, a length, a time or an amount of money is less than nothing
 *   or no number
 */
export function checked<T extends Figured>(plan: T): T {
  const { jacket, sections, estimate } = plan;
  const figures: [string, number][] = [
    ["silicone of the jacket", jacket.siliconeMm3],
    ["mass of the jacket", jacket.siliconeG],
    ["area of the jacket", jacket.outerAreaMm2],
    ["clay at the foot", jacket.footClayMm3],
    ...jacket.coats.map(({ volumeMm3 }, k): [string, number] => [`silicone of coat ${k + 1}`, volumeMm3]),
    ["fill", sections.fillMm3],
    ["length of the parting lines", sections.partingLengthMm],
    ...sections.sections.flatMap(({ number, areaMm2, fillMm3, biteMm, travelMm }): [string, number][] => [
      [`area of section ${number}`, areaMm2],
      [`fill of section ${number}`, fillMm3],
      [`bite of section ${number}`, biteMm],
      [`travel of section ${number}`, travelMm],
    ]),
    ["mass of the shell", estimate.shellG],
    ["mass of the fill", estimate.fillG],
    ["time of hands", estimate.handsMin],
    ["time of finishing", estimate.finishMin],
    ...estimate.materials.map(({ item, quantity }): [string, number] => [`quantity of ${item}`, quantity]),
    ...estimate.tasks.map(({ name, handsMin }): [string, number] => [`time of "${name}"`, handsMin]),
  ];
  for (const [figure, value] of figures) {
    if (!(value >= 0) || value === Infinity) throw new ImpossibleFigure(figure, value);
  }
  return plan;
}
