import { Router } from "express";
import type { Sequelize } from "sequelize";
import { z } from "zod";
import type { Scan } from "../../../contract/scans.ts";
import { Blob, ScanRow } from "../../db/models.ts";
import { actingMember } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";
import { sendBlob, storeBlob } from "../blobs.ts";

/** What to do about a scan that is too large. */
const THINNER = "Thin it out and try again.";

const query = z.object({ name: z.string().trim().min(1).max(255) });

export function scanRoutes(sequelize: Sequelize, limitBytes: number): Router {
  const router = Router();

  router.post("/", async (request, response) => {
    const { workshopId } = actingMember(request);
    const { name } = query.parse(request.query);
    if (Number(request.get("content-length") ?? 0) > limitBytes) {
      throw new Problem(
        "too-large",
        `The scan is larger than ${Math.round(limitBytes / 1024 / 1024)} MB, the most this server takes. ${THINNER}`,
      );
    }
    const scan = await storeBlob(
      sequelize,
      workshopId,
      request,
      { bytes: limitBytes, advice: THINNER },
      async (blob, transaction): Promise<Scan> => {
        const row = await ScanRow.create({ workshopId, blobId: blob.id, name }, { transaction });
        return { id: row.id, name, bytes: blob.bytes, sha256: blob.sha256 };
      },
    );
    response.status(201).json(scan);
  });

  router.get("/:id/content", async (request, response) => {
    const { workshopId } = actingMember(request);
    const row = await ScanRow.findOne({ where: { id: request.params.id, workshopId } });
    const blob = row && (await Blob.findByPk(row.blobId));
    if (!row || !blob) throw new Problem("not-found", "That scan is not here.");
    response.setHeader("cache-control", "private, max-age=31536000, immutable");
    await sendBlob(response, blob);
  });

  return router;
}
