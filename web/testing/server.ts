/** A server of a few answers, in place of the network, for tests of what asks it. */
import { vi } from "vitest";

export interface Asked {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** An answer's status and JSON; or `offline`, as if nobody were there. */
export type Told = { readonly status: number; readonly body: unknown } | "offline";

/** @returns what was asked, in order */
export function standInServer(answer: (asked: Asked) => Told): Asked[] {
  const log: Asked[] = [];
  vi.stubGlobal("fetch", async (url: string, init: RequestInit = {}) => {
    const text = typeof init.body === "string" ? init.body : null;
    const asked = { method: init.method ?? "GET", path: url.replace(/^\/api/, ""), body: text && JSON.parse(text) };
    log.push(asked);
    const told = answer(asked);
    if (told === "offline") throw new TypeError("Failed to fetch");
    return new Response(JSON.stringify(told.body), { status: told.status });
  });
  return log;
}
