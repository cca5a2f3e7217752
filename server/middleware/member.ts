import type { Request, RequestHandler } from "express";
import { Member, Workshop } from "../db/models.ts";
import { Problem } from "../problem.ts";

/** Who acts, and in which workshop: every query goes through it. */
export interface Acting {
  readonly workshopId: string;
  readonly workshopName: string;
  readonly memberId: string;
  readonly memberName: string;
}

const acting = new WeakMap<Request, Acting>();

/** Until there is sign-in, everyone acts as the first member of the first workshop. The one place to change. */
export const actAsFirstMember: RequestHandler = async (request, _response, next) => {
  const workshop = await Workshop.findOne({ order: [["id", "ASC"]] });
  const member = workshop && (await Member.findOne({ where: { workshopId: workshop.id }, order: [["id", "ASC"]] }));
  if (!workshop || !member)
    throw new Problem("unavailable", "No workshop is set up yet; start the server with ./run start or ./run demo.");
  acting.set(request, {
    workshopId: workshop.id,
    workshopName: workshop.name,
    memberId: member.id,
    memberName: member.name,
  });
  next();
};

export function actingMember(request: Request): Acting {
  const found = acting.get(request);
  if (!found) throw new Problem("forbidden", "Nobody is signed in.");
  return found;
}
