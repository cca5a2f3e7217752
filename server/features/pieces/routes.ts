import express, { Router } from "express";
import type { Sequelize } from "sequelize";
import { changePiece, createPiece } from "../../../contract/pieces.ts";
import { Cover } from "../../db/models.ts";
import { actingMember } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";
import { addPiece, alterPiece, duplicatePiece, findPiece, getPiece, listPieces } from "./service.ts";

const COVER_LIMIT = "1mb";

export function pieceRoutes(sequelize: Sequelize): Router {
  const router = Router();

  router.get("/", async (request, response) => {
    response.json({ pieces: await listPieces(actingMember(request)) });
  });
  router.post("/", async (request, response) => {
    response.status(201).json(await addPiece(sequelize, actingMember(request), createPiece.parse(request.body)));
  });
  router.get("/:id", async (request, response) => {
    response.json(await getPiece(actingMember(request), request.params.id));
  });
  router.patch("/:id", async (request, response) => {
    response.json(await alterPiece(actingMember(request), request.params.id, changePiece.parse(request.body)));
  });
  router.post("/:id/duplicate", async (request, response) => {
    response.status(201).json(await duplicatePiece(sequelize, actingMember(request), request.params.id));
  });
  router.get("/:id/cover", async (request, response) => {
    const piece = await findPiece(actingMember(request), request.params.id);
    const cover = await Cover.findByPk(piece.id);
    if (!cover) throw new Problem("not-found", "That piece has no picture yet.");
    response.setHeader("cache-control", "private, no-cache");
    response.type("png").send(cover.image);
  });
  router.put("/:id/cover", express.raw({ type: "image/png", limit: COVER_LIMIT }), async (request, response) => {
    const piece = await findPiece(actingMember(request), String(request.params.id));
    const image: unknown = request.body;
    if (!Buffer.isBuffer(image) || image.length < 8 || image.readUInt32BE(0) !== 0x89504e47)
      throw new Problem("unsupported", "A picture must be a PNG.");
    await Cover.upsert({ pieceId: piece.id, workshopId: piece.workshopId, image });
    response.status(204).end();
  });
  return router;
}
