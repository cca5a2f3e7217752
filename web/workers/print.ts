/** Patterns drawn as PDF on a thread of their own. */
import * as Comlink from "comlink";
import type { PrintedWall } from "../../core/export/wallsPdf.ts";
import type { PrintApi, Printed } from "./print.worker.ts";

/** @returns null where it could not be drawn */
export async function printWalls(
  walls: readonly PrintedWall[],
  pieceName: string,
  paper: string,
  wallCount: number,
): Promise<Printed | null> {
  const worker = new Worker(new URL("./print.worker.ts", import.meta.url), { type: "module" });
  try {
    const plain = walls.map(({ pattern, marks }) => ({ pattern, marks }));
    return await Comlink.wrap<PrintApi>(worker).walls(plain, pieceName, paper, wallCount);
  } catch (error) {
    console.error("The patterns could not be drawn.", error);
    return null;
  } finally {
    worker.terminate();
  }
}
