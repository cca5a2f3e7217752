/** What the parting walls stand on: leaned, and how far a flange may reach. Of settled plans alone. */
import type { Jacket } from "../../jacket/jacket.ts";
import { shellTakeoff } from "../../shell/index.ts";
import { wallGrounds } from "../../walls/ground.ts";
import type { WallGround } from "../../walls/wallGround.ts";
import type { ProvenParting } from "../proof/parting.ts";
import { stage } from "./stage.ts";

export const wallsStage = stage({
  name: "walls",
  after: ["jacket", "parting"],
  reads: ({ shell }, { effort }) => ({
    flangeMm: shellTakeoff(shell.system, shell.figures, { areasMm2: [], flangeAreasMm2: [] }).flangeThicknessMm,
    settled: effort.order,
  }),
  progress: {},
  make: (
    { flangeMm, settled },
    { jacket, parting }: { readonly jacket: Jacket; readonly parting: ProvenParting },
    ctx,
  ): WallGround[] => {
    if (!settled) return [];
    const { filled: mesh, filledNearest: nearest, body, lines, sections, giveMm } = parting;
    const boardMm = jacket.request.onBoard ? 0 : null;
    return wallGrounds({ mesh, nearest, body, lines, sections, giveMm, flangeMm, boardMm }, ctx);
  },
});
