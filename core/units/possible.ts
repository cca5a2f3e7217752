/** The last look at figures before they leave the core: none of them may be what no figure can be. */

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

/** @throws ImpossibleFigure for the first figure that is less than nothing, without end, or no number */
export function checkFigures(figures: Iterable<readonly [name: string, value: number]>): void {
  for (const [name, value] of figures) if (!(value >= 0) || value === Infinity) throw new ImpossibleFigure(name, value);
}
