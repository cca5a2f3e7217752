/** A Node thread that helps a team until its process ends. */
import { parentPort, workerData } from "node:worker_threads";
import { help, type Task } from "../../core/job/team.ts";
import { kernels, kernelsReady } from "../../core/kernels.ts";

parentPort?.on("message", (task: Task) => help(kernels, task));
await kernelsReady;
Atomics.store(workerData as Int32Array, 0, 1);
