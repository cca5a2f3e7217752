import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { Router } from "express";
import type { Sequelize } from "sequelize";
import { RESULT_LIMIT_BYTES, resultKey } from "../../../contract/scans.ts";
import { Blob, Result } from "../../db/models.ts";
import { actingMember } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";
import { readBlob, storeBlob } from "../blobs.ts";

/** Worked-out results by the hash of their inputs: whoever works one out leaves it for the others. */
export function resultRoutes(sequelize: Sequelize): Router {
  const router = Router();

  router.get("/:key", async (request, response) => {
    const { workshopId } = actingMember(request);
    const found = await Result.findOne({ where: { workshopId, resultKey: resultKey.parse(request.params.key) } });
    const blob = found && (await Blob.findByPk(found.blobId));
    if (!blob) throw new Problem("not-found", "That result has not been worked out yet.");
    response.setHeader("content-type", "application/octet-stream");
    response.setHeader("content-length", String(blob.bytes));
    response.setHeader("cache-control", "private, max-age=31536000, immutable");
    await pipeline(Readable.from(readBlob(blob.id)), response);
  });

  router.put("/:key", async (request, response) => {
    const { workshopId } = actingMember(request);
    const key = resultKey.parse(request.params.key);
    await storeBlob(sequelize, workshopId, request, RESULT_LIMIT_BYTES, async (blob, transaction) => {
      await Result.upsert({ workshopId, resultKey: key, blobId: blob.id }, { transaction });
    });
    response.status(204).end();
  });

  return router;
}
