/** The wall of the cavity that casts are poured into, by section and height. Of settled plans alone. */
import { type Wetted, wettedWall } from "../../casting/wetted.ts";
import type { Jacket } from "../../jacket/jacket.ts";
import { Cells } from "../../release/cells.ts";
import type { ProvenParting } from "../proof/parting.ts";
import type { Piece } from "./piece.ts";
import { stage } from "./stage.ts";

export const cavityStage = stage({
  name: "cavity",
  after: ["piece", "jacket", "parting"],
  reads: (_document, { effort }) => ({ settled: effort.order }),
  progress: {},
  make: (
    { settled },
    { piece, jacket, parting }: { readonly piece: Piece; readonly jacket: Jacket; readonly parting: ProvenParting },
  ): Wetted | null => {
    if (!settled) return null;
    const { cells, cellOf, sections } = parting;
    const at = new Cells(cells.data);
    const boardMm = jacket.request.onBoard ? 0 : null;
    return wettedWall(piece.mesh, sections.length, (x, y, z) => cellOf.indexOf(at.at(x, y, z)), boardMm);
  },
});
