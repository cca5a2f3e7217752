/** The piece: the scan seated, mended, and the outside of everything in it. */
import { type Outside, outsideOfParts } from "../../field/enclosed.ts";
import { areaAndVolume, boxSize, meshBox, sharedMesh, type TriangleMesh } from "../../mesh/mesh.ts";
import { repairScan, type ScanReport } from "../../mesh/repair.ts";
import { seatPiece } from "./seat.ts";
import { stage } from "./stage.ts";

export interface Piece {
  readonly mesh: TriangleMesh;
  readonly report: ScanReport;
  readonly areaMm2: number;
  readonly volumeMm3: number;
  readonly sizeMm: readonly [number, number, number];
}

/** @throws ScanProblem from `make`, where the scan cannot be mended */
export const pieceStage = stage({
  name: "piece",
  after: [],
  reads: ({ seat }) => seat,
  progress: { repair: 0.05 },
  make(seat, { scan }, ctx): Piece {
    const { mesh: mended, report: found } = repairScan(seatPiece(scan, seat), ctx);
    const outside = outsideOfParts(mended, ctx);
    const { mesh } = outside;
    const report = { ...found, repairs: [...found.repairs, ...toldOfParts(outside)] };
    return { mesh: sharedMesh(mesh, ctx.team), report, ...areaAndVolume(mesh), sizeMm: boxSize(meshBox(mesh)) };
  },
});

function toldOfParts({ inner, overlapping, thin }: Outside): string[] {
  const told: string[] = [];
  if (thin > 0) told.push(`left out ${thin} ${thin === 1 ? "sheet" : "sheets"} without thickness`);
  if (inner > 0)
    told.push(
      `left out ${inner} inner ${inner === 1 ? "skin" : "skins"}: nothing outside can reach ${inner === 1 ? "it" : "them"}`,
    );
  if (overlapping > 0) told.push(`${overlapping} parts run into others: what they share counts once`);
  return told;
}
