import { afterEach, describe, expect, it, vi } from "vitest";
import { z } from "zod";
import { standInServer } from "../testing/server.ts";
import { call, getJson, HttpProblem, sendJson } from "./http.ts";

afterEach(() => vi.unstubAllGlobals());

const problemOf = async (work: Promise<unknown>): Promise<HttpProblem> => {
  const error = await work.then(
    () => null,
    (reason: unknown) => reason,
  );
  expect(error).toBeInstanceOf(HttpProblem);
  return error as HttpProblem;
};

describe("a call to the server", () => {
  it("sends JSON and reads the answer by its schema", async () => {
    const log = standInServer(() => ({ status: 200, body: { revision: 4, more: true } }));
    const answer = await sendJson("PUT", "/pieces/7/plan", { revision: 3 }, z.object({ revision: z.number() }));
    expect(answer).toEqual({ revision: 4 });
    expect(log).toEqual([{ method: "PUT", path: "/pieces/7/plan", body: { revision: 3 } }]);
  });

  it("refuses an answer of another shape", async () => {
    standInServer(() => ({ status: 200, body: { revision: "four" } }));
    await expect(getJson("/pieces/7/plan", z.object({ revision: z.number() }))).rejects.toThrow(/expected number/);
  });

  it("passes the server's own words on, with what came with them", async () => {
    const body = { error: { code: "too-large", message: "The scan is over 512 MB; thin it out." } };
    standInServer(() => ({ status: 413, body }));
    const problem = await problemOf(call("/scans"));
    expect([problem.code, problem.message, problem.body]).toEqual([
      "too-large",
      "The scan is over 512 MB; thin it out.",
      body,
    ]);
  });

  it("names an answer nobody foresaw by its status", async () => {
    standInServer(() => ({ status: 502, body: "<html>" }));
    const problem = await problemOf(call("/pieces"));
    expect([problem.code, problem.message]).toEqual(["internal", "The server answered 502."]);
  });

  it("says that edits are kept while the server is away", async () => {
    standInServer(() => "offline");
    const problem = await problemOf(call("/pieces"));
    expect(problem.code).toBe("offline");
    expect(problem.message).toContain("kept here");
  });
});
