import { availableParallelism } from "node:os";
import { Worker } from "node:worker_threads";
import { dealSurvey, type Job, type JobResult, runJob } from "../../core/job/job.ts";
import type { SurveyCrew } from "../../core/parting/suggest.ts";

/** Shares a survey between this thread and others, one a core. */
export const threadCrew: SurveyCrew = async (request, tick) => {
  const shares = Math.max(1, Math.min(4, availableParallelism()));
  const { jobs, gather } = dealSurvey(request, shares);
  const others = jobs.slice(1).map(inThread);
  const own = runJob(jobs[0], tick);
  const results = [own, ...(await Promise.all(others))];
  return gather(
    results.map((result) => {
      if (!result.ok) throw new Error(`The survey failed: ${result.detail}`);
      return result.cost;
    }),
  );
};

/** Node 20 does not pass the TypeScript loader on to threads: a thread registers it itself, then loads the module. */
const THREAD = `
  import(${JSON.stringify(import.meta.resolve("tsx/esm/api"))})
    .then(({ register }) => { register(); return import(${JSON.stringify(new URL("./jobThread.ts", import.meta.url).href)}); });
`;

function inThread(job: Job): Promise<JobResult> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(THREAD, { eval: true, workerData: job });
    worker.once("message", resolve);
    worker.once("error", reject);
  });
}
