import { Member, Workshop } from "../db/models.ts";

/** Every row belongs to a workshop: there is at least one, with one member. */
export async function ensureWorkshop(
  name = "Our workshop",
  memberName = "Mould maker",
): Promise<{ workshopId: string; memberId: string; memberName: string; workshopName: string }> {
  const workshop = (await Workshop.findOne({ order: [["id", "ASC"]] })) ?? (await Workshop.create({ name }));
  const where = { workshopId: workshop.id };
  const member =
    (await Member.findOne({ where, order: [["id", "ASC"]] })) ?? (await Member.create({ ...where, name: memberName }));
  return { workshopId: workshop.id, workshopName: workshop.name, memberId: member.id, memberName: member.name };
}
