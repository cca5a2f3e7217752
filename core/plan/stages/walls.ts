/** What the parting walls stand on: leaned, and how far a flange may reach. Of settled plans alone. */
import { widthFor } from "../../flange/fastenings.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import { thickestOf } from "../../shell/index.ts";
import { allLayups } from "../../shell/layup.ts";
import { wallGrounds } from "../../walls/ground.ts";
import type { WallGround } from "../../walls/wallGround.ts";
import type { ProvenParting } from "../proof/parting.ts";
import { stage } from "./stage.ts";

export const wallsStage = stage({
  name: "walls",
  after: ["jacket", "parting"],
  reads: ({ shell }, { effort }) => ({
    ...thickestOf(allLayups(shell)),
    flangesReachMm: widthFor(shell.flanges, null, thickestOf(allLayups(shell))),
    settled: effort.order,
  }),
  progress: {},
  make: (
    { flangeMm, shellMm, flangesReachMm, settled },
    { jacket, parting }: { readonly jacket: Jacket; readonly parting: ProvenParting },
    ctx,
  ): WallGround[] => {
    if (!settled) return [];
    const { filled: mesh, filledNearest: nearest, body, lines, sections, giveMm, cells, cellOf } = parting;
    const boardMm = jacket.request.onBoard ? 0 : null;
    const others = { cells: cells.data, cellOf, skins: sections.map(({ skin }) => skin), shellMm, flangesReachMm };
    return wallGrounds({ mesh, nearest, body, lines, sections, giveMm, flangeMm, boardMm, others }, ctx);
  },
});
