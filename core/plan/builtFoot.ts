/** The foot of a plan's shell along the board: what is drawn of it, drilled, and made solid. */
import { type Footprint, footprintOf } from "../foot/footprint.ts";
import { jacketThicknessMm } from "../jacket/coat.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import type { FootBody } from "../solids/foot.ts";
import { type FastenedWall, shellTerms } from "./builtWalls.ts";
import type { PlanDocument } from "./document/document.ts";

/** Height of the board in the seated piece's space, mm. */
const BOARD_MM = 0;

type Footed = Pick<PlanDocument, "shell" | "jacket" | "seat">;

/**
 * What of the mould stands on the board; null where the piece floats.
 * @param piece null where its own outline is not asked for
 * @param jacket what the shell is laid on, fills and all
 */
export function builtFootprint(
  { piece, jacket }: { readonly piece: TriangleMesh | null; readonly jacket: TriangleMesh },
  document: Footed,
  walls: readonly Pick<FastenedWall, "wall">[],
): Footprint | null {
  const { shell, seat } = document;
  if (!seat.onBoard) return null;
  return footprintOf({
    ...{ piece, jacket, boardMm: BOARD_MM },
    rimMm: document.jacket.rimWidthMm,
    foot: shell.foot,
    walls: walls.map(({ wall }) => wall),
    boltMm: shell.flanges.bolts.diameterMm,
    flangeMm: shellTerms(shell).flangeMm,
  });
}

/** The foot as the sections have it; null where the piece floats. */
export function builtFoot(
  jacket: TriangleMesh,
  document: Footed,
  walls: readonly Pick<FastenedWall, "wall">[],
): FootBody | null {
  const footprint = builtFootprint({ piece: null, jacket }, document, walls);
  if (!footprint) return null;
  const { foot } = document.shell;
  return {
    outline: footprint.jacket,
    rimMm: document.jacket.rimWidthMm,
    jacketMm: jacketThicknessMm(document.jacket.coats),
    beyondMm: foot.isFlanged ? foot.beyondMm : null,
    thickMm: shellTerms(document.shell).flangeMm,
    boardMm: BOARD_MM,
    bolts: footprint.bolts,
  };
}
