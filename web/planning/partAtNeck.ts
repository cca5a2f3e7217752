/** A section parted in two at its neck: the plan's lines are taken in hand, and one more is drawn across it. */
import { jacketThicknessMm } from "../../core/jacket/coat.ts";
import { type Layout, takenInHand } from "../../core/parting/layout/layout.ts";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import type { ShownPlan } from "../../core/plan/results/figures.ts";
import { type Neck, placesAcross } from "../../core/solids/neck.ts";
import { Hand } from "../workers/hand.ts";

export type Parted = { readonly ok: true; readonly layout: Layout } | { readonly ok: false; readonly problem: string };

export async function partAtNeck(
  { survey, drawn, figures }: Pick<ShownPlan, "survey" | "drawn" | "figures">,
  { parting, seat, zones, jacket }: PlanDocument,
  neck: Neck,
): Promise<Parted> {
  const hand = new Hand();
  try {
    await hand.api.takeUp(survey, seat.onBoard);
    const from = parting.layout ?? takenInHand(drawn, figures.report.sections);
    const picked = placesAcross(neck);
    const draw = { kind: "draw", picked, closed: false, way: { kind: "shortest" } } as const;
    const answer = await hand.api.edit(from, draw, { zones, overMm: jacketThicknessMm(jacket.coats) });
    return answer.ok ? { ok: true, layout: answer.layout } : answer;
  } finally {
    hand.end();
  }
}
