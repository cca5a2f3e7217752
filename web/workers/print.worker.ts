/** Draws patterns as PDF, so that the page stays awake meanwhile. */
import * as Comlink from "comlink";
import { type PrintedWall, wallsPdf } from "../../core/export/wallsPdf.ts";
import { paperOf } from "../../core/patterns/pages.ts";

export interface Printed {
  readonly bytes: Uint8Array;
  readonly pages: number;
  readonly wasteShare: number;
}

const api = {
  async walls(walls: readonly PrintedWall[], pieceName: string, paper: string, wallCount: number): Promise<Printed> {
    const { bytes, layout } = await wallsPdf(walls, pieceName, paperOf(paper), wallCount);
    return Comlink.transfer({ bytes, pages: layout.pages.length, wasteShare: layout.wasteShare }, [bytes.buffer]);
  },
};

export type PrintApi = typeof api;

Comlink.expose(api);
