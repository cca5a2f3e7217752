import { Op, type Sequelize } from "sequelize";
import type { z } from "zod";
import type { changePiece, createPiece, Piece, Station } from "../../../contract/pieces.ts";
import { Blob, Cover, PieceRow, PlanRevision, PlanRow, ScanRow } from "../../db/models.ts";
import type { Acting } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";

export async function listPieces(acting: Acting): Promise<Piece[]> {
  const rows = await PieceRow.findAll({
    where: { workshopId: acting.workshopId },
    order: [
      ["updatedAt", "DESC"],
      ["id", "ASC"],
    ],
  });
  return described(rows);
}

export async function getPiece(acting: Acting, id: string): Promise<Piece> {
  return (await described([await findPiece(acting, id)]))[0];
}

export async function findPiece(acting: Acting, id: string): Promise<PieceRow> {
  const row = await PieceRow.findOne({ where: { id, workshopId: acting.workshopId } });
  if (!row) throw new Problem("not-found", "That piece is not on this workshop's shelf.");
  return row;
}

async function described(rows: readonly PieceRow[]): Promise<Piece[]> {
  const scans = await ScanRow.findAll({ where: { id: { [Op.in]: rows.map((row) => row.scanId) } } });
  const blobs = await Blob.findAll({ where: { id: { [Op.in]: scans.map((scan) => scan.blobId) } } });
  const covers = await Cover.findAll({
    where: { pieceId: { [Op.in]: rows.map((row) => row.id) } },
    attributes: ["pieceId"],
  });
  const covered = new Set(covers.map((cover) => cover.pieceId));
  return rows.map((row) => {
    const scan = scans.find((candidate) => candidate.id === row.scanId);
    const blob = blobs.find((candidate) => candidate.id === scan?.blobId);
    return {
      id: row.id,
      name: row.name,
      scanId: row.scanId,
      scanName: scan?.name ?? "",
      scanBytes: Number(blob?.bytes ?? 0),
      scanSha256: blob?.sha256 ?? "",
      station: row.station as Station,
      away: row.away,
      summary: row.summary,
      hasCover: covered.has(row.id),
      createdAt: row.createdAt.toISOString(),
      updatedAt: row.updatedAt.toISOString(),
    };
  });
}

export async function addPiece(
  sequelize: Sequelize,
  acting: Acting,
  request: z.infer<typeof createPiece>,
): Promise<Piece> {
  const scan = await ScanRow.findOne({ where: { id: request.scanId, workshopId: acting.workshopId } });
  if (!scan) throw new Problem("bad-request", "The scan has to be uploaded before its piece is made.");
  const row = await sequelize.transaction(async (transaction) => {
    const piece = await PieceRow.create(
      {
        workshopId: acting.workshopId,
        scanId: scan.id,
        name: request.name,
        station: "piece",
        summary: "",
        away: false,
      },
      { transaction },
    );
    const plan = {
      pieceId: piece.id,
      workshopId: acting.workshopId,
      revision: 1,
      document: request.document,
      updatedBy: acting.memberName,
    };
    await PlanRow.create(plan, { transaction });
    await PlanRevision.create(plan, { transaction });
    return piece;
  });
  return getPiece(acting, row.id);
}

export async function alterPiece(acting: Acting, id: string, change: z.infer<typeof changePiece>): Promise<Piece> {
  await (await findPiece(acting, id)).update(change);
  return getPiece(acting, id);
}

/** A copy with its own plan; the scan is shared. */
export async function duplicatePiece(sequelize: Sequelize, acting: Acting, id: string): Promise<Piece> {
  const original = await findPiece(acting, id);
  const plan = await PlanRow.findByPk(id);
  const cover = await Cover.findByPk(id);
  if (!plan) throw new Problem("not-found", "That piece has no plan to copy.");
  const copy = await sequelize.transaction(async (transaction) => {
    const { workshopId } = acting;
    const row = await PieceRow.create(
      {
        workshopId,
        scanId: original.scanId,
        name: `${original.name} (copy)`.slice(0, 120),
        station: original.station,
        summary: original.summary,
        away: false,
      },
      { transaction },
    );
    const first = { pieceId: row.id, workshopId, revision: 1, document: plan.document, updatedBy: acting.memberName };
    await PlanRow.create(first, { transaction });
    await PlanRevision.create(first, { transaction });
    if (cover) await Cover.create({ pieceId: row.id, workshopId, image: cover.image }, { transaction });
    return row;
  });
  return getPiece(acting, copy.id);
}
