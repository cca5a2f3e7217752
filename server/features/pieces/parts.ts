/** The parts of pieces: which scan each has, as the contract tells of them. */
import { Op, type Transaction } from "sequelize";
import type { Part } from "../../../contract/pieces.ts";
import { Blob, PartRow, ScanRow } from "../../db/models.ts";
import type { Acting } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";

/** The parts of some pieces, each piece's in their order. */
export async function partsOf(pieceIds: readonly string[]): Promise<Map<string, Part[]>> {
  const rows = await PartRow.findAll({
    where: { pieceId: { [Op.in]: pieceIds } },
    order: [
      ["position", "ASC"],
      ["id", "ASC"],
    ],
  });
  const scans = await ScanRow.findAll({ where: { id: { [Op.in]: rows.map((row) => row.scanId) } } });
  const blobs = await Blob.findAll({ where: { id: { [Op.in]: scans.map((scan) => scan.blobId) } } });
  const scanOf = new Map(scans.map((scan) => [scan.id, scan]));
  const blobOf = new Map(blobs.map((blob) => [blob.id, blob]));
  const parts = new Map<string, Part[]>(pieceIds.map((id) => [id, []]));
  for (const { id, pieceId, name, scanId } of rows) {
    const scan = scanOf.get(scanId);
    const blob = scan && blobOf.get(scan.blobId);
    parts.get(pieceId)?.push({
      ...{ id, name, scanId },
      scanName: scan?.name ?? "",
      scanBytes: Number(blob?.bytes ?? 0),
      scanSha256: blob?.sha256 ?? "",
    });
  }
  return parts;
}

/** @throws Problem where the piece has no such part, or is not this workshop's */
export async function findPart(
  { workshopId }: Acting,
  params: Readonly<Record<string, unknown>>,
  transaction?: Transaction,
): Promise<PartRow> {
  const where = { id: String(params.partId), pieceId: String(params.id), workshopId };
  const row = await PartRow.findOne({ where, transaction });
  if (!row) throw new Problem("not-found", "That part of a piece is not on this workshop's shelf.");
  return row;
}
