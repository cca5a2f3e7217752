import { Router } from "express";
import type { Logger } from "pino";
import type { Sequelize } from "sequelize";
import { z } from "zod";
import type { revisionList } from "../../../contract/builds.ts";
import { type StoredPlan, savePlan } from "../../../contract/pieces.ts";
import { upgradePlan } from "../../../contract/planUpgrades.ts";
import { actingMember } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";
import { findPart } from "../pieces/parts.ts";
import { listRevisions, nameOf, readPlan, storedRevision, writePlan } from "./service.ts";

const revisionParam = z.coerce.number().int().min(1);

/** Mounted under a part of a piece: its plan and the plan's revisions. */
export function planRoutes(sequelize: Sequelize, log: Logger): Router {
  const router = Router({ mergeParams: true });

  router.get("/plan", async (request, response) => {
    response.json(await readPlan(await findPart(actingMember(request), request.params), log));
  });

  router.put("/plan", async (request, response) => {
    const acting = actingMember(request);
    const part = await findPart(acting, request.params);
    const saved = await writePlan(sequelize, acting, part, savePlan.parse(request.body));
    const plan = await readPlan(part, log);
    if (!saved) {
      throw new Problem(
        "conflict",
        "Someone else changed this plan since you opened it. Both versions are safe; choose which to go on with.",
        { body: { current: plan } },
      );
    }
    response.json(plan);
  });

  router.get("/revisions", async (request, response) => {
    const part = await findPart(actingMember(request), request.params);
    response.json({ revisions: await listRevisions(part) } satisfies z.output<typeof revisionList>);
  });

  router.get("/revisions/:revision", async (request, response) => {
    const part = await findPart(actingMember(request), request.params);
    const row = await storedRevision(part, revisionParam.parse(request.params.revision));
    const read = (() => {
      try {
        return upgradePlan(row.document);
      } catch {
        throw new Problem("internal", "This revision cannot be read any more. It can still be taken away as a file.");
      }
    })();
    const plan: StoredPlan = {
      ...{ partId: part.id, revision: row.revision, document: read },
      ...{ updatedAt: row.createdAt.toISOString(), updatedBy: await nameOf(row.updatedById) },
    };
    response.json(plan);
  });

  /** As it is stored, for what cannot be read any more. */
  router.get("/revisions/:revision/file", async (request, response) => {
    const part = await findPart(actingMember(request), request.params);
    const { document, revision } = await storedRevision(part, revisionParam.parse(request.params.revision));
    response.setHeader("content-disposition", `attachment; filename="plan-revision-${revision}.json"`);
    response.type("json").send(typeof document === "string" ? document : JSON.stringify(document, null, 1));
  });

  return router;
}
