/** A team of Node threads, one a core; they load while the caller reads its scan, and do not keep the process up. */
import { availableParallelism } from "node:os";
import { Worker } from "node:worker_threads";
import { type Helper, SharedTeam } from "../../core/job/team.ts";

/** Node 20 does not pass the TypeScript loader on to threads: a thread registers it itself, then loads the module. */
const THREAD = `
  import(${JSON.stringify(import.meta.resolve("tsx/esm/api"))})
    .then(({ register }) => { register(); return import(${JSON.stringify(new URL("./helperThread.ts", import.meta.url).href)}); });
`;

const MOST_THREADS = 4;

export function threadTeam(threads = Math.min(MOST_THREADS, availableParallelism())): SharedTeam {
  return new SharedTeam(Array.from({ length: Math.max(0, threads - 1) }, startHelper));
}

function startHelper(): Helper {
  const ready = new Int32Array(new SharedArrayBuffer(4));
  const worker = new Worker(THREAD, { eval: true, workerData: ready });
  worker.unref();
  // A helper that cannot start is never ready; one that dies is left out of what comes next.
  worker.once("error", () => Atomics.store(ready, 0, 0));
  return {
    ready: () => Atomics.load(ready, 0) === 1,
    post: (task) => worker.postMessage(task),
  };
}
