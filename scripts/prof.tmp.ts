import { readFileSync } from "node:fs";
import { plainContext } from "../core/job/context.ts";
import { readScan } from "../core/mesh/io/index.ts";
import { newPlan } from "../core/plan/document.ts";
import { PlanEngine } from "../core/plan/engine.ts";
import { TYPICAL_RATES } from "../core/plan/estimate.ts";
import { threadTeam } from "../server/compute/team.ts";

const [file, step, sections] = process.argv.slice(2);
const ctx = { ...plainContext, nowMs: () => performance.now(), team: threadTeam() };
const e = new PlanEngine(readScan(readFileSync(file), file).mesh);
const d = newPlan();
const doc = {
  ...d,
  parting: { ...d.parting, sections: sections === "auto" ? ("auto" as const) : (Number(sections) as 3) },
};
e.jacketFor(doc, Number(step), ctx);
const t = performance.now();
const r = e.run(doc, TYPICAL_RATES, Number(step), ctx);
console.log(
  Math.round(performance.now() - t),
  r.sections.sections.map((s) => [s.releases, Math.round(s.fillMm3 / 1000)]),
  r.sections.partingLengthMm,
);
