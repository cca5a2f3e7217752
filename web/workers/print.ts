/** Patterns drawn as PDF, and bodies written as files, on a thread of its own. */
import * as Comlink from "comlink";
import type { NamedDrawing, PrintedWall } from "../../core/export/wallsPdf.ts";
import type { Drawing } from "../../core/patterns/drawing.ts";
import type { NumberedBody, PrintApi, Printed } from "./print.worker.ts";

/** @returns null where it could not be done */
async function onThread<T>(work: (api: Comlink.Remote<PrintApi>) => Promise<T>): Promise<T | null> {
  const worker = new Worker(new URL("./print.worker.ts", import.meta.url), { type: "module" });
  try {
    return await work(Comlink.wrap<PrintApi>(worker));
  } catch (error) {
    console.error("The file could not be written.", error);
    return null;
  } finally {
    worker.terminate();
  }
}

/** @param wallCount how many walls the plan has, where not all are printed */
export function printWalls(
  walls: readonly PrintedWall[],
  pieceName: string,
  paper: string,
  wallCount: number,
): Promise<Printed | null> {
  const plain = walls.map(({ pattern, marks }) => ({ pattern, marks }));
  return onThread((api) => api.walls(plain, pieceName, paper, wallCount));
}

export function printDrawings(
  drawings: readonly NamedDrawing[],
  title: string,
  paper: string,
): Promise<Printed | null> {
  return onThread((api) => api.drawings(drawings, title, paper));
}

export function printSheets(title: string, drawings: readonly Drawing[], paper: string): Promise<Uint8Array | null> {
  return onThread((api) => api.sheets(title, drawings, paper));
}

export function bodiesAs3mf(bodies: readonly NumberedBody[]): Promise<Uint8Array | null> {
  const plain = bodies.map(({ number, mesh }) => ({ number, mesh }));
  return onThread((api) => api.threemf(plain));
}

export function bodiesAsGlb(bodies: readonly NumberedBody[]): Promise<Uint8Array | null> {
  const plain = bodies.map(({ number, mesh }) => ({ number, mesh }));
  return onThread((api) => api.glb(plain));
}

export function bodyAsStl({ number, mesh }: NumberedBody): Promise<Uint8Array | null> {
  return onThread((api) => api.stl({ number, mesh }));
}
