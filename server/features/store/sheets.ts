/** Data sheets and photos of materials: taken in by what they are, given out as attachments only. */
import { Router } from "express";
import type { Sequelize } from "sequelize";
import {
  MOST_SHEETS,
  SHEET_LIMIT_BYTES,
  SHEET_TYPES,
  type Sheet,
  type SheetType,
  sheetList,
  sheetOf,
} from "../../../contract/sheets.ts";
import { Blob, SheetRow } from "../../db/models.ts";
import { actingMember } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";
import { dropUnused, sendBlob, storeBlob } from "../blobs.ts";

export function sheetRoutes(sequelize: Sequelize): Router {
  const router = Router();

  router.get("/", async (request, response) => {
    const { workshopId } = actingMember(request);
    const rows = await SheetRow.findAll({ where: { workshopId }, order: [["createdAt", "ASC"]] });
    const blobs = await Blob.findAll({ where: { id: rows.map(({ blobId }) => blobId) } });
    const bytesOf = new Map(blobs.map(({ id, bytes }) => [id, Number(bytes)]));
    response.json(sheetList.parse({ sheets: rows.map((row) => sheetFrom(row, bytesOf.get(row.blobId) ?? 0)) }));
  });

  router.post("/", async (request, response) => {
    const { workshopId } = actingMember(request);
    const { material, name } = sheetOf.parse(request.query);
    if ((await SheetRow.count({ where: { workshopId, material } })) >= MOST_SHEETS)
      throw new Problem("bad-request", `A material keeps ${MOST_SHEETS} files at most. Take one away first.`);
    const { type, body } = await recognised(request);
    const limit = { bytes: SHEET_LIMIT_BYTES, advice: "Save it smaller, or only the pages that matter." };
    const kept = await storeBlob(sequelize, workshopId, body, limit, async (blob, transaction) => {
      const row = await SheetRow.create({ workshopId, blobId: blob.id, material, name, type }, { transaction });
      return sheetFrom(row, blob.bytes);
    });
    response.status(201).json(kept);
  });

  router.get("/:id", async (request, response) => {
    const { workshopId } = actingMember(request);
    const row = await SheetRow.findOne({ where: { id: request.params.id, workshopId } });
    const blob = row && (await Blob.findByPk(row.blobId));
    if (!row || !blob) throw new Problem("not-found", "That file is not here.");
    response.attachment(row.name);
    response.setHeader("cache-control", "private, max-age=31536000, immutable");
    await sendBlob(response, blob, row.type);
  });

  router.delete("/:id", async (request, response) => {
    const { workshopId } = actingMember(request);
    const row = await SheetRow.findOne({ where: { id: request.params.id, workshopId } });
    if (!row) throw new Problem("not-found", "That file is not here.");
    await row.destroy();
    await dropUnused(row.blobId);
    response.status(204).end();
  });

  return router;
}

function sheetFrom({ id, material, name, type, createdAt }: SheetRow, bytes: number): Sheet {
  return { id, material, name, type: type as SheetType, bytes, addedAt: createdAt.toISOString() };
}

/** The first bytes of each type that is taken. */
const BEGINNINGS: Readonly<Record<SheetType, readonly number[]>> = {
  "application/pdf": [0x25, 0x50, 0x44, 0x46, 0x2d],
  "image/png": [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a],
  "image/jpeg": [0xff, 0xd8, 0xff],
};
const LONGEST = Math.max(...Object.values(BEGINNINGS).map(({ length }) => length));

/**
 * What a body is by its first bytes, whatever it calls itself; and the whole of it, unread.
 * @throws Problem `unsupported` where it is nothing that is kept
 */
async function recognised(
  request: AsyncIterable<Buffer>,
): Promise<{ readonly type: SheetType; readonly body: AsyncIterable<Buffer> }> {
  const parts = request[Symbol.asyncIterator]();
  let head = Buffer.alloc(0);
  while (head.length < LONGEST) {
    const next = await parts.next();
    if (next.done) break;
    head = Buffer.concat([head, next.value]);
  }
  const types = Object.keys(BEGINNINGS) as SheetType[];
  const type = types.find((each) => BEGINNINGS[each].every((byte, k) => head[k] === byte));
  if (!type)
    throw new Problem(
      "unsupported",
      `Only ${Object.values(SHEET_TYPES).join(", ")} are kept with a material; this file is none of them.`,
    );
  async function* whole(): AsyncGenerator<Buffer> {
    yield head;
    for (let next = await parts.next(); !next.done; next = await parts.next()) yield next.value;
  }
  return { type, body: whole() };
}
