/** A second thread for one share of a job. */
import { type Job, runJob } from "../../core/job/job.ts";

self.onmessage = (event: MessageEvent<Job>) => {
  const result = runJob(event.data, () => {});
  self.postMessage(result, { transfer: result.ok ? [result.cost.buffer as ArrayBuffer] : [] });
};
