import { plainContext } from "../core/job/context.ts";
import { newPlan } from "../core/plan/document/document.ts";
import { PlanEngine } from "../core/plan/engine.ts";
import { takenInHand } from "../core/parting/layout/layout.ts";
import { TYPICAL_RATES } from "../core/takeoff/rates.ts";
import { threadTeam } from "../server/compute/team.ts";
import { makeLamplighter } from "../demo/pieces/lamplighter.ts";
import { makeRelief } from "../demo/pieces/relief.ts";
import { makeWalrus } from "../demo/pieces/walrus.ts";
const ctx = { ...plainContext, nowMs: () => performance.now(), team: threadTeam() };
for (const [name, make] of Object.entries({ walrus: makeWalrus, relief: makeRelief, lamplighter: makeLamplighter })) {
  const piece = make();
  let laid: any = null;
  for (const step of [7, 5, 3.5, 2.5]) {
    const engine = new PlanEngine(piece);
    let t = performance.now();
    const r = engine.partingFor(newPlan(), TYPICAL_RATES, step, ctx);
    console.log(name, step, "suggested", r.sections.map((s) => `${s.releases} ${s.biteMm.toFixed(2)} ${(s.fillMm3 / 1e6).toFixed(3)}`).join(" | "), ((performance.now() - t) / 1000).toFixed(0));
    if (!laid) laid = takenInHand(r.drawn, r.sections);
    t = performance.now();
    const p = newPlan();
    const q = engine.partingFor({ ...p, parting: { ...p.parting, layout: laid } }, TYPICAL_RATES, step, ctx);
    console.log(name, step, "same lines", q.sections.map((s) => `${s.releases} ${s.biteMm.toFixed(2)} ${(s.fillMm3 / 1e6).toFixed(3)}`).join(" | "), ((performance.now() - t) / 1000).toFixed(0));
  }
}
process.exit(0);
