/** Plans of parts, saved on the revision they were made on; every revision is kept. */
import type { Logger } from "pino";
import { Op, type Sequelize } from "sequelize";
import type { z } from "zod";
import type { RevisionSummary } from "../../../contract/builds.ts";
import type { StoredPlan, savePlan } from "../../../contract/pieces.ts";
import { upgradePlan } from "../../../contract/planUpgrades.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { Member, type PartRow, PieceRow, PlanRevision, PlanRow } from "../../db/models.ts";
import type { Acting } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";

/** So many of the latest revisions are listed. */
const LISTED_REVISIONS = 50;
/** So many revisions are looked through for one that can be read. */
const LOOKED_THROUGH = 200;

export interface MemberName {
  readonly id: string;
  readonly name: string;
}

export async function nameOf(memberId: string | null): Promise<MemberName | null> {
  const member = memberId && (await Member.findByPk(memberId));
  return member ? { id: member.id, name: member.name } : null;
}

export async function readPlan({ id: partId, workshopId }: PartRow, log: Logger): Promise<StoredPlan> {
  const row = await PlanRow.findOne({ where: { partId, workshopId } });
  if (!row) throw new Problem("not-found", "That part has no plan.");
  const { revision, updatedAt } = row;
  const document = readable(row.document);
  const told = { partId, revision, updatedAt: updatedAt.toISOString(), updatedBy: await nameOf(row.updatedById) };
  if (document) return { ...told, document };
  // Never the fault of whoever asks: it is told to those who look after the server, and the last readable one is opened.
  log.error({ partId, revision }, "a stored plan cannot be read");
  const earlier = await PlanRevision.findAll({
    where: { partId, workshopId },
    order: [["revision", "DESC"]],
    limit: LOOKED_THROUGH,
  });
  for (const one of earlier) {
    const found = readable(one.document);
    if (found) return { ...told, document: found, unreadableRevision: revision };
  }
  throw new Problem(
    "internal",
    "This plan was stored in a form that cannot be read any more, and so were all before it. Nothing was changed; take it away as a file and tell whoever looks after the server.",
  );
}

function readable(document: unknown): PlanDocument | null {
  try {
    return upgradePlan(document);
  } catch {
    return null;
  }
}

/** @returns whether it was saved; it is not where the plan stands at another revision */
export async function writePlan(
  sequelize: Sequelize,
  { memberId, workshopId }: Acting,
  part: PartRow,
  { revision, document }: z.output<typeof savePlan>,
): Promise<boolean> {
  return sequelize.transaction(async (transaction) => {
    const next = { revision: revision + 1, document, updatedById: memberId };
    const where = { partId: part.id, workshopId, revision };
    const [changed] = await PlanRow.update(next, { where, transaction });
    if (changed === 0) return false;
    await PlanRevision.create({ partId: part.id, workshopId, ...next }, { transaction });
    await PieceRow.update({ updatedAt: new Date() }, { where: { id: part.pieceId }, transaction });
    return true;
  });
}

export async function listRevisions({ id: partId, workshopId }: PartRow): Promise<RevisionSummary[]> {
  const rows = await PlanRevision.findAll({
    where: { partId, workshopId },
    attributes: ["revision", "createdAt", "updatedById"],
    order: [["revision", "DESC"]],
    limit: LISTED_REVISIONS,
  });
  const ids = rows.flatMap(({ updatedById }) => (updatedById ? [updatedById] : []));
  const members = new Map((await Member.findAll({ where: { id: { [Op.in]: ids } } })).map((one) => [one.id, one.name]));
  return rows.map(({ revision, createdAt, updatedById: id }) => ({
    revision,
    savedAt: createdAt.toISOString(),
    savedBy: id && members.has(id) ? { id, name: members.get(id) ?? "" } : null,
  }));
}

/** The document of a revision as it is stored, whether it can be read or not. */
export async function storedRevision({ id: partId, workshopId }: PartRow, revision: number): Promise<PlanRevision> {
  const row = await PlanRevision.findOne({ where: { partId, workshopId, revision } });
  if (!row) throw new Problem("not-found", "There is no such revision of this plan.");
  return row;
}
