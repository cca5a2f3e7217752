import type { z } from "zod";
import { apiError, type ErrorCode } from "../../contract/error.ts";
import { seldom } from "./progress.ts";

/** An answer that was no success: the server's own words, and the body for those who know more. */
export class HttpProblem extends Error {
  override readonly name = "HttpProblem";
  constructor(
    readonly code: ErrorCode | "offline",
    message: string,
    readonly body: unknown,
  ) {
    super(message);
  }
}

export async function call(path: string, init: RequestInit = {}): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, init);
  } catch {
    throw new HttpProblem(
      "offline",
      "The server cannot be reached. Your edits are kept here and saved when it answers again.",
      null,
    );
  }
  if (response.ok) return response;
  const body: unknown = await response.json().catch(() => null);
  const known = apiError.safeParse(body);
  if (known.success) throw new HttpProblem(known.data.error.code, known.data.error.message, body);
  throw new HttpProblem("internal", `The server answered ${response.status}.`, body);
}

export async function getJson<T>(path: string, schema: z.ZodType<T>): Promise<T> {
  return schema.parse(await (await call(path)).json());
}

export async function sendJson<T>(
  method: "POST" | "PUT" | "PATCH",
  path: string,
  body: unknown,
  schema: z.ZodType<T>,
  more: Pick<RequestInit, "keepalive"> = {},
): Promise<T> {
  const response = await call(path, {
    ...more,
    method,
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  });
  return schema.parse(await response.json());
}

/** What a text says as JSON; null where it is none, as the page of a server in between. */
function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** Sends a file with true progress of the upload. */
export function uploadFile(path: string, file: Blob, onProgress: (fraction: number) => void): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", `/api${path}`);
    request.setRequestHeader("content-type", "application/octet-stream");
    const tell = seldom(onProgress);
    request.upload.onprogress = (event) => tell(event.loaded / Math.max(1, event.total));
    request.onerror = () =>
      reject(
        new HttpProblem("offline", "The upload was cut off. Nothing half-written was kept; drop the scan again.", null),
      );
    request.onload = () => {
      const body = jsonIn(request.responseText);
      if (request.status < 300) resolve(body);
      else {
        const known = apiError.safeParse(body);
        reject(
          known.success
            ? new HttpProblem(known.data.error.code, known.data.error.message, body)
            : new HttpProblem("internal", `The server answered ${request.status}.`, body),
        );
      }
    };
    request.send(file);
  });
}
