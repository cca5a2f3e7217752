import { Router } from "express";
import { DEFAULT_SETTINGS, type Session, type Settings, settings } from "../../../contract/settings.ts";
import { Member, SettingsRow } from "../../db/models.ts";
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
    const { memberName, ...document } = settings.parse(request.body);
    const sequelize = Member.sequelize;
    await sequelize?.transaction(async (transaction) => {
      await Member.update({ name: memberName }, { where: { id: memberId }, transaction });
      await SettingsRow.upsert({ memberId, workshopId, document }, { transaction });
    });
    response.json({ memberName, ...document });
  });

  return router;
}

/** Stored settings over today's defaults, so that a new setting needs no migration. */
async function readSettings(acting: Acting): Promise<Settings> {
  const row = await SettingsRow.findByPk(acting.memberId);
  const stored = (row?.document ?? {}) as Partial<Settings>;
  return settings.parse({
    ...DEFAULT_SETTINGS,
    ...stored,
    rates: { ...DEFAULT_SETTINGS.rates, ...stored.rates },
    memberName: acting.memberName,
  });
}
