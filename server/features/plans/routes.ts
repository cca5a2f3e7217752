import { Router } from "express";
import type { Sequelize } from "sequelize";
import { type StoredPlan, savePlan } from "../../../contract/pieces.ts";
import { upgradePlan } from "../../../contract/plan.ts";
import { PieceRow, PlanRevision, PlanRow } from "../../db/models.ts";
import { type Acting, actingMember } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";
import { findPiece } from "../pieces/service.ts";

/** Mounted under a piece: its plan, saved on the revision it was made on. */
export function planRoutes(sequelize: Sequelize): Router {
  const router = Router({ mergeParams: true });

  router.get("/", async (request, response) => {
    response.json(await readPlan(actingMember(request), pieceIdOf(request.params)));
  });

  router.put("/", async (request, response) => {
    const acting = actingMember(request);
    const pieceId = pieceIdOf(request.params);
    const { revision, document } = savePlan.parse(request.body);
    await findPiece(acting, pieceId);
    const saved = await sequelize.transaction(async (transaction) => {
      const [changed] = await PlanRow.update(
        { revision: revision + 1, document, updatedBy: acting.memberName },
        { where: { pieceId, workshopId: acting.workshopId, revision }, transaction },
      );
      if (changed === 0) return false;
      await PlanRevision.create(
        { pieceId, workshopId: acting.workshopId, revision: revision + 1, document, updatedBy: acting.memberName },
        { transaction },
      );
      await PieceRow.update({ updatedAt: new Date() }, { where: { id: pieceId }, transaction });
      return true;
    });
    const plan = await readPlan(acting, pieceId);
    if (!saved) {
      throw new Problem(
        "conflict",
        "Someone else changed this plan since you opened it. Both versions are safe; choose which to go on with.",
        { body: { current: plan } },
      );
    }
    response.json(plan);
  });

  return router;
}

function pieceIdOf(params: Record<string, unknown>): string {
  return String(params.id);
}

async function readPlan(acting: Acting, pieceId: string): Promise<StoredPlan> {
  const row = await PlanRow.findOne({ where: { pieceId, workshopId: acting.workshopId } });
  if (!row) throw new Problem("not-found", "That piece has no plan.");
  return {
    pieceId,
    revision: row.revision,
    document: upgradePlan(row.document),
    updatedAt: row.updatedAt.toISOString(),
    updatedBy: row.updatedBy,
  };
}
