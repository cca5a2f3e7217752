/** A Node worker thread that runs one job and ends. */
import { parentPort, workerData } from "node:worker_threads";
import { type Job, type JobResult, runJob } from "../../core/job/job.ts";

const result: JobResult = runJob(workerData as Job, () => {});
parentPort?.postMessage(result, result.ok ? [result.cost.buffer as ArrayBuffer] : []);
