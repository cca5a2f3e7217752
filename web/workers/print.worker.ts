/** Draws patterns as PDF and writes bodies as files, so that the page stays awake meanwhile. */
import * as Comlink from "comlink";
import { SECTION_PIGMENTS } from "../../core/display/palette.ts";
import { sheetsPdf } from "../../core/export/pdf.ts";
import { sectionsGlb } from "../../core/export/planGlb.ts";
import { writeStl } from "../../core/export/stl.ts";
import { write3mf } from "../../core/export/threemf.ts";
import {
  drawingsPdf,
  type NamedDrawing,
  type PrintedPages,
  type PrintedWall,
  wallsPdf,
} from "../../core/export/wallsPdf.ts";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";
import type { Drawing } from "../../core/patterns/drawing.ts";
import { paperOf } from "../../core/patterns/pages.ts";

export interface Printed {
  readonly bytes: Uint8Array;
  readonly pages: number;
  readonly wasteShare: number;
}

/** A section's body, to be written. */
export interface NumberedBody {
  readonly number: number;
  readonly mesh: TriangleMesh;
}

const handed = (bytes: Uint8Array) => Comlink.transfer(bytes, [bytes.buffer as ArrayBuffer]);

function printed({ bytes, layout }: PrintedPages): Printed {
  return Comlink.transfer({ bytes, pages: layout.pages.length, wasteShare: layout.wasteShare }, [
    bytes.buffer as ArrayBuffer,
  ]);
}

const api = {
  async walls(walls: readonly PrintedWall[], pieceName: string, paper: string, wallCount: number): Promise<Printed> {
    return printed(await wallsPdf(walls, pieceName, paperOf(paper), wallCount));
  },
  async drawings(drawings: readonly NamedDrawing[], title: string, paper: string): Promise<Printed> {
    return printed(await drawingsPdf(drawings, title, paperOf(paper)));
  },
  /** Drawings that fill a page each. */
  async sheets(title: string, drawings: readonly Drawing[], paper: string): Promise<Uint8Array> {
    return handed(await sheetsPdf(title, drawings, paperOf(paper)));
  },
  /** All sections in their pigments, by name. */
  threemf(bodies: readonly NumberedBody[]): Uint8Array {
    return handed(
      write3mf(
        bodies.map(({ number, mesh }) => ({
          name: `section-${number}`,
          mesh,
          css: SECTION_PIGMENTS[(number - 1) % SECTION_PIGMENTS.length].css,
        })),
      ),
    );
  },
  async glb(bodies: readonly NumberedBody[]): Promise<Uint8Array> {
    return handed(await sectionsGlb(bodies));
  },
  stl({ mesh }: NumberedBody): Uint8Array {
    return handed(writeStl(mesh));
  },
};

export type PrintApi = typeof api;

Comlink.expose(api);
