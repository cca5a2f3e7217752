import type { ErrorRequestHandler, RequestHandler } from "express";
import type { Logger } from "pino";
import { ConnectionError } from "sequelize";
import { z } from "zod";
import { PLAN_LIMIT_BYTES } from "../../contract/pieces.ts";
import { Problem } from "../problem.ts";

export const notFound: RequestHandler = (request) => {
  throw new Problem("not-found", `There is nothing at ${request.path}.`);
};

/** Every error leaves in the one shape. */
export function answerErrors(log: Logger): ErrorRequestHandler {
  return (error, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const problem = asProblem(error);
    if (problem.code === "internal") log.error({ err: error, path: request.path }, "unexpected error");
    response.status(problem.status).json({
      error: { code: problem.code, message: problem.message, fields: problem.more.fields },
      ...problem.more.body,
    });
  };
}

function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof z.ZodError) {
    const fields = Object.fromEntries(error.issues.map((issue) => [issue.path.join("."), issue.message]));
    const first = error.issues[0];
    return new Problem(
      "bad-request",
      `${first?.path.length ? `${first.path.join(".")}: ` : ""}${first?.message ?? "The request is not right."}`,
      { fields },
    );
  }
  if (error instanceof ConnectionError)
    return new Problem(
      "unavailable",
      "The database cannot be reached just now; nothing was changed. Try again in a moment.",
    );
  const status = (error as { status?: number }).status;
  if (status === 413)
    return new Problem(
      "too-large",
      `This is larger than ${Math.round(PLAN_LIMIT_BYTES / 1024 / 1024)} MB, the most this server takes at once; nothing was changed. A plan with fewer painted dabs or shorter lines will be taken.`,
    );
  if (status !== undefined && status >= 400 && status < 500)
    return new Problem("bad-request", "The request could not be read.");
  return new Problem(
    "internal",
    "Something went wrong on the server; nothing was changed. Try again, and tell whoever looks after the server if it stays.",
  );
}
