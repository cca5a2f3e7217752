import type { RequestHandler } from "express";
import { Problem } from "../problem.ts";

const READS = new Set(["GET", "HEAD", "OPTIONS"]);

/** Writes are taken from our own pages (and from programs that are no browser) only. */
export const sameOriginWrites: RequestHandler = (request, _response, next) => {
  if (!READS.has(request.method)) {
    const site = request.get("sec-fetch-site");
    const origin = request.get("origin");
    const foreign =
      (site !== undefined && site !== "same-origin" && site !== "none") ||
      (origin !== undefined && hostOf(origin) !== request.get("host"));
    if (foreign) throw new Problem("forbidden", "Changes are accepted from Rimefell's own pages only.");
  }
  next();
};

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
