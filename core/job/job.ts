/**
 * The only surface for helper workers: a job as data in, a result or a failure as data out. Long computations that
 * keep state (the plan's stages) live in `PlanEngine`; jobs are the shares handed to a second thread.
 */
import { type SurveyRequest, surveyDirections } from "../survey/survey.ts";

export interface SurveyJob {
  readonly kind: "survey";
  readonly request: SurveyRequest;
}

export type Job = SurveyJob;

export type JobResult =
  | { readonly ok: true; readonly kind: "survey"; readonly cost: Float32Array }
  | { readonly ok: false; readonly code: string; readonly detail: string };

export function runJob(job: Job, tick: (done: number) => void): JobResult {
  try {
    switch (job.kind) {
      case "survey":
        return { ok: true, kind: "survey", cost: surveyDirections(job.request, tick) };
    }
  } catch (error) {
    return { ok: false, code: "failed", detail: error instanceof Error ? error.message : String(error) };
  }
}

/** Directions dealt out in turn, so that every share is about as hard; and how to put the rows back together. */
export function dealSurvey(
  request: SurveyRequest,
  shares: number,
): { jobs: SurveyJob[]; gather(costs: readonly Float32Array[]): Float32Array } {
  const jobs = Array.from(
    { length: shares },
    (_, s): SurveyJob => ({
      kind: "survey",
      request: { ...request, directions: request.directions.filter((_direction, k) => k % shares === s) },
    }),
  );
  const vertices = request.mesh.positions.length / 3;
  return {
    jobs,
    gather(costs) {
      const out = new Float32Array(request.directions.length * vertices);
      for (let k = 0; k < request.directions.length; k++) {
        const row = Math.floor(k / shares);
        out.set(costs[k % shares].subarray(row * vertices, (row + 1) * vertices), k * vertices);
      }
      return out;
    },
  };
}
