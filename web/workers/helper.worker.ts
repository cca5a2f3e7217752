/** A second thread for the geometry worker. */

import { help, type Task } from "../../core/job/team.ts";
import { kernels, kernelsReady } from "../../core/kernels.ts";
import { ARE_YOU_THERE } from "./signals.ts";

self.onmessage = ({ data }: MessageEvent<Task | typeof ARE_YOU_THERE>) => {
  if (data === ARE_YOU_THERE) kernelsReady.then(() => self.postMessage(true));
  else help(kernels, data);
};
