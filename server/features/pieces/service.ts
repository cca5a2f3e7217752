import { Op, type Sequelize } from "sequelize";
import type { z } from "zod";
import type { changePiece, createPiece, Piece } from "../../../contract/pieces.ts";
import { Cover, PartRow, PieceRow, PlanRevision, PlanRow, ScanRow } from "../../db/models.ts";
import type { Acting } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";
import { partsOf } from "./parts.ts";

/** The name of the one part of a piece that was not cut. */
const WHOLE = "Whole";

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
  const ids = rows.map((row) => row.id);
  const parts = await partsOf(ids);
  const covers = await Cover.findAll({ where: { pieceId: { [Op.in]: ids } }, attributes: ["pieceId"] });
  const covered = new Set(covers.map((cover) => cover.pieceId));
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    parts: parts.get(row.id) ?? [],
    station: row.station,
    away: row.away,
    summary: row.summary,
    hasCover: covered.has(row.id),
    createdAt: row.createdAt.toISOString(),
    updatedAt: row.updatedAt.toISOString(),
  }));
}

export async function addPiece(
  sequelize: Sequelize,
  acting: Acting,
  request: z.infer<typeof createPiece>,
): Promise<Piece> {
  const { workshopId, memberId } = acting;
  const scan = await ScanRow.findOne({ where: { id: request.scanId, workshopId } });
  if (!scan) throw new Problem("bad-request", "The scan has to be uploaded before its piece is made.");
  const row = await sequelize.transaction(async (transaction) => {
    const fresh = { workshopId, name: request.name, station: "piece", summary: "", away: false };
    const piece = await PieceRow.create(fresh, { transaction });
    const whole = { workshopId, pieceId: piece.id, scanId: scan.id, name: WHOLE, position: 0 };
    const part = await PartRow.create(whole, { transaction });
    const plan = { partId: part.id, workshopId, revision: 1, document: request.document, updatedById: memberId };
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

/** A copy with plans of its own; the scans are shared, and what was built from stays with the original. */
export async function duplicatePiece(sequelize: Sequelize, acting: Acting, id: string): Promise<Piece> {
  const { workshopId, memberId } = acting;
  const original = await findPiece(acting, id);
  const parts = await PartRow.findAll({ where: { pieceId: id }, order: [["position", "ASC"]] });
  const plans = await PlanRow.findAll({ where: { partId: { [Op.in]: parts.map((part) => part.id) } } });
  const cover = await Cover.findByPk(id);
  if (plans.length < parts.length) throw new Problem("not-found", "That piece has no plan to copy.");
  const copy = await sequelize.transaction(async (transaction) => {
    const { name, station, summary } = original;
    const fresh = { workshopId, name: `${name} (copy)`.slice(0, 120), station, summary, away: false };
    const row = await PieceRow.create(fresh, { transaction });
    for (const { id: partId, scanId, name: called, position } of parts) {
      const part = await PartRow.create(
        { workshopId, pieceId: row.id, scanId, name: called, position },
        { transaction },
      );
      const document = plans.find((plan) => plan.partId === partId)?.document ?? {};
      const first = { partId: part.id, workshopId, revision: 1, document, updatedById: memberId };
      await PlanRow.create(first, { transaction });
      await PlanRevision.create(first, { transaction });
    }
    if (cover) await Cover.create({ pieceId: row.id, workshopId, image: cover.image }, { transaction });
    return row;
  });
  return getPiece(acting, copy.id);
}
