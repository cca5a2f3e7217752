import { afterEach, describe, expect, it, vi } from "vitest";
import { z } from "zod";
import { standInServer } from "../testing/server.ts";
import { call, getJson, HttpProblem, sendJson, uploadFile } from "./http.ts";

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

describe("an upload", () => {
  /** A request that is answered by hand. */
  class StandInRequest {
    static last: StandInRequest | null = null;
    readonly upload = { onprogress: null as ((event: { loaded: number; total: number }) => void) | null };
    onload: (() => void) | null = null;
    onerror: (() => void) | null = null;
    status = 0;
    responseText = "";
    constructor() {
      StandInRequest.last = this;
    }
    open(): void {}
    setRequestHeader(): void {}
    send(): void {}
    answer(status: number, text: string): void {
      this.status = status;
      this.responseText = text;
      this.onload?.();
    }
  }

  const sent = (told: number[] = []) => {
    vi.stubGlobal("XMLHttpRequest", StandInRequest);
    const upload = uploadFile("/scans?name=a.stl", new Blob(["abc"]), (fraction) => told.push(fraction));
    return { upload, request: StandInRequest.last as StandInRequest };
  };
  afterEach(() => vi.unstubAllGlobals());

  it("tells how much of it is through, and hands over the answer", async () => {
    const told: number[] = [];
    const { upload, request } = sent(told);
    request.upload.onprogress?.({ loaded: 1, total: 2 });
    request.answer(201, JSON.stringify({ id: "7" }));
    expect(await upload).toEqual({ id: "7" });
    expect(told).toEqual([0.5]);
  });

  it("ends with an error where a server in between answers with a page of its own", async () => {
    const { upload, request } = sent();
    request.answer(502, "<html><h1>Bad gateway</h1></html>");
    await expect(upload).rejects.toMatchObject({ code: "internal", message: "The server answered 502." });
  });

  it("says what the server says where it refuses, and that nothing was kept where it is cut off", async () => {
    const { upload, request } = sent();
    request.answer(413, JSON.stringify({ error: { code: "too-large", message: "Thin it out." } }));
    await expect(upload).rejects.toMatchObject({ code: "too-large", message: "Thin it out." });
    const cut = sent();
    cut.request.onerror?.();
    await expect(cut.upload).rejects.toMatchObject({ code: "offline" });
  });
});
