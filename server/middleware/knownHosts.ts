import { isIP } from "node:net";
import type { RequestHandler } from "express";
import { Problem } from "../problem.ts";

/**
 * Answers only to the names it goes by: a foreign page whose own name was pointed at this machine would else pass for one
 * of ours. Addresses in figures and "localhost" cannot be such names; any other is to be allowed by the configuration.
 * @param allowed further host names, without ports
 */
export function knownHosts(allowed: readonly string[]): RequestHandler {
  const names = new Set(["localhost", ...allowed.map((name) => name.toLowerCase())]);
  return (request, _response, next) => {
    const name = hostNameOf(request.get("host") ?? "");
    if (name === null || (isIP(name) === 0 && !names.has(name)))
      throw new Problem(
        "forbidden",
        "This server does not go by that name. Whoever looks after it can allow the name in RIMEFELL_HOSTS.",
      );
    next();
  };
}

/** The name in a Host header, without its port and brackets; null where it is no host. */
function hostNameOf(host: string): string | null {
  try {
    return new URL(`http://${host}`).hostname.replace(/^\[|\]$/g, "").toLowerCase();
  } catch {
    return null;
  }
}
