/** A second thread for the geometry worker. Its first message is the flag it sets once it is ready for tasks. */
import { kernels } from "../../core/job/kernels.ts";
import { help, type Task } from "../../core/job/team.ts";

self.onmessage = ({ data }: MessageEvent<Task | Int32Array>) => {
  if (data instanceof Int32Array) Atomics.store(data, 0, 1);
  else help(kernels, data);
};
