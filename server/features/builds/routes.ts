import { Router } from "express";
import type { Sequelize } from "sequelize";
import type { z } from "zod";
import { type Build, type BuildSummary, type buildList, createBuild } from "../../../contract/builds.ts";
import { planFigures } from "../../../contract/figures.ts";
import { upgradePlan } from "../../../contract/planUpgrades.ts";
import { rates as ratesSchema } from "../../../contract/rates.ts";
import { Blob, BuildRow, PlanRow, Result } from "../../db/models.ts";
import { actingMember } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";
import { sendBlob } from "../blobs.ts";
import { findPart } from "../pieces/parts.ts";
import { nameOf } from "../plans/service.ts";

/** What a build keeps beside its document and rates. */
interface Frozen {
  readonly figures: unknown;
  readonly catalogue: Build["catalogue"];
}

/** Mounted under a part of a piece: the plans that are built from. Made and read; never changed. */
export function buildRoutes(sequelize: Sequelize): Router {
  const router = Router({ mergeParams: true });

  router.get("/", async (request, response) => {
    const { id: partId, workshopId } = await findPart(actingMember(request), request.params);
    const rows = await BuildRow.findAll({ where: { partId, workshopId }, order: [["madeAt", "DESC"]] });
    const builds = await Promise.all(rows.map(summaryOf));
    response.json({ builds } satisfies z.output<typeof buildList>);
  });

  router.post("/", async (request, response) => {
    const acting = actingMember(request);
    const { id: partId, workshopId } = await findPart(acting, request.params);
    const { name, revision, resultKey, rates, figures, catalogue } = createBuild.parse(request.body);
    const made = await sequelize.transaction(async (transaction) => {
      const plan = await PlanRow.findOne({ where: { partId, workshopId, revision }, transaction });
      if (!plan)
        throw new Problem("conflict", "The plan was changed meanwhile. Look at it as it is now, and build from that.");
      const result = await Result.findOne({ where: { workshopId, resultKey }, transaction });
      return BuildRow.create(
        {
          ...{ partId, workshopId, name, revision, rates, madeById: acting.memberId },
          document: plan.document,
          figures: { figures, catalogue } satisfies Frozen,
          blobId: result?.blobId ?? null,
        },
        { transaction },
      );
    });
    response.status(201).json(await summaryOf(made));
  });

  router.get("/:buildId", async (request, response) => {
    const { id: partId, workshopId } = await findPart(actingMember(request), request.params);
    const row = await find(partId, workshopId, request.params);
    const { figures, catalogue } = parsed<Frozen>(row.figures);
    const build: Build = {
      ...(await summaryOf(row)),
      document: upgradePlan(parsed(row.document)),
      rates: ratesSchema.parse(parsed(row.rates)),
      figures: planFigures.parse(figures),
      catalogue,
    };
    response.json(build);
  });

  /** The packed result it was made from. */
  router.get("/:buildId/result", async (request, response) => {
    const { id: partId, workshopId } = await findPart(actingMember(request), request.params);
    const row = await find(partId, workshopId, request.params);
    const blob = row.blobId && (await Blob.findByPk(row.blobId));
    if (!blob) throw new Problem("not-found", "Only the figures of this build were kept.");
    await sendBlob(response, blob);
  });

  return router;
}

async function find(partId: string, workshopId: string, params: Readonly<Record<string, unknown>>): Promise<BuildRow> {
  const row = await BuildRow.findOne({ where: { id: String(params.buildId), partId, workshopId } });
  if (!row) throw new Problem("not-found", "That build is not here.");
  return row;
}

async function summaryOf({ id, name, revision, madeAt, madeById }: BuildRow): Promise<BuildSummary> {
  return { id, name, revision, madeAt: madeAt.toISOString(), madeBy: await nameOf(madeById) };
}

/** JSON columns come back as text from some servers. */
function parsed<T>(value: unknown): T {
  return (typeof value === "string" ? JSON.parse(value) : value) as T;
}
