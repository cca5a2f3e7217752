/** The jacket over the piece, on a grid. */
import { type Jacket, type JacketRequest, makeJacket } from "../../jacket/jacket.ts";
import type { Piece } from "./piece.ts";
import { stage } from "./stage.ts";

export const jacketStage = stage({
  name: "jacket",
  after: ["piece"],
  reads: ({ jacket, seat, zones }, { stepMm }): JacketRequest => ({
    coats: jacket.coats.map(({ thicknessMm, thickened }) => ({ thicknessMm, thickened })),
    smoothingMm: jacket.smoothingMm,
    rimWidthMm: jacket.rimWidthMm,
    ...(zones.thicker.length > 0 ? { thicker: { dabs: zones.thicker, moreMm: jacket.thickerMm } } : {}),
    stops: jacket.stops.map(({ loop }) => ({ loop })),
    footClayMm: jacket.footClayMm,
    onBoard: seat.onBoard,
    stepMm,
  }),
  progress: { field: 0.2, jacket: 0.2 },
  make: (request, { piece }: { readonly piece: Piece }, ctx): Jacket => makeJacket(piece.mesh, request, ctx),
});
