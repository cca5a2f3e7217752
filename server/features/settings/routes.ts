import { Router } from "express";
import { DEFAULT_SETTINGS, type Session, type Settings, settings } from "../../../contract/settings.ts";
import { Member, SettingsRow, WorkshopSettingsRow } from "../../db/models.ts";
import { type Acting, actingMember } from "../../middleware/member.ts";

export function settingsRoutes(): Router {
  const router = Router();

  router.get("/", async (request, response) => {
    const acting = actingMember(request);
    const answer: Session = {
      workshop: { id: acting.workshopId, name: acting.workshopName },
      member: { id: acting.memberId, name: acting.memberName },
      settings: await readSettings(acting),
    };
    response.json(answer);
  });

  router.put("/settings", async (request, response) => {
    const { memberId, workshopId } = actingMember(request);
    const { memberName, rates, ...own } = settings.parse(request.body);
    const sequelize = Member.sequelize;
    await sequelize?.transaction(async (transaction) => {
      await Member.update({ name: memberName }, { where: { id: memberId }, transaction });
      await SettingsRow.upsert({ memberId, workshopId, document: own }, { transaction });
      await WorkshopSettingsRow.upsert({ workshopId, document: { rates } }, { transaction });
    });
    response.json({ memberName, rates, ...own } satisfies Settings);
  });

  return router;
}

/**
 * The member's own settings and the workshop's rates, over today's defaults, so that a new setting needs no migration. Rates
 * are one for all members: two who look at a plan see the same one.
 */
async function readSettings({ memberId, memberName, workshopId }: Acting): Promise<Settings> {
  const own = documentOf(await SettingsRow.findByPk(memberId));
  const shared = documentOf(await WorkshopSettingsRow.findByPk(workshopId));
  return settings.parse({
    ...DEFAULT_SETTINGS,
    ...own,
    rates: { ...DEFAULT_SETTINGS.rates, ...shared.rates },
    memberName,
  });
}

function documentOf(row: { readonly document: object } | null): Partial<Settings> {
  const document: unknown = row?.document ?? {};
  return (typeof document === "string" ? JSON.parse(document) : document) as Partial<Settings>;
}
