import { Router } from "express";
import type { Sequelize } from "sequelize";
import { RESULT_LIMIT_BYTES, resultKey } from "../../../contract/scans.ts";
import { Blob, Result } from "../../db/models.ts";
import { actingMember } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";
import { sendBlob, storeBlob } from "../blobs.ts";
import { findPart } from "../pieces/parts.ts";
import { evictResults } from "./cache.ts";

/** Worked-out results by the hash of their inputs: whoever works one out leaves it for the others of the workshop. */
export function resultRoutes(): Router {
  const router = Router();

  router.get("/:key", async (request, response) => {
    const { workshopId } = actingMember(request);
    const found = await Result.findOne({ where: { workshopId, resultKey: resultKey.parse(request.params.key) } });
    const blob = found && (await Blob.findByPk(found.blobId));
    if (!blob) throw new Problem("not-found", "That result has not been worked out yet.");
    await found.update({ usedAt: new Date() });
    response.setHeader("cache-control", "private, max-age=31536000, immutable");
    await sendBlob(response, blob);
  });

  return router;
}

const RESULT_LIMIT = { bytes: RESULT_LIMIT_BYTES, advice: "It is worked out again where it is asked for." };

/** Mounted under a part of a piece: a result is left there by whoever may change that piece. */
export function partResultRoutes(sequelize: Sequelize, mostBytes: number): Router {
  const router = Router({ mergeParams: true });

  router.put("/:key", async (request, response) => {
    const acting = actingMember(request);
    const { workshopId } = await findPart(acting, request.params);
    const key = resultKey.parse((request.params as Record<string, unknown>).key);
    await storeBlob(sequelize, workshopId, request, RESULT_LIMIT, async (blob, transaction) => {
      await Result.upsert({ workshopId, resultKey: key, blobId: blob.id, usedAt: new Date() }, { transaction });
    });
    await evictResults(workshopId, mostBytes);
    response.status(204).end();
  });

  return router;
}
