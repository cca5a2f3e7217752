/** Edits of a layout as plain data, so that a page can send them to where the surface is. */
import type { Direction } from "../../space/directions.ts";
import { insertHandle, layStretch, moveHandle, type Place, placeAt, removeHandle, shiftStretch } from "./handles.ts";
import type { Layout, Treatment } from "./layout.ts";
import { drawLine, type HandResult, mergeSections, mirrorLine } from "./sections.ts";
import type { Surface } from "./surface.ts";
import type { Way } from "./ways.ts";

/** Lines, handles and sections are counted from 0, as the layout has them. */
export type HandEdit =
  | { readonly kind: "move"; readonly line: number; readonly handle: number; readonly to: Place }
  | { readonly kind: "nudge"; readonly line: number; readonly handle: number; readonly by: Place }
  | { readonly kind: "shift"; readonly at: Place; readonly to: Place; readonly lengthMm: number }
  | { readonly kind: "insert"; readonly line: number; readonly at: Place }
  | { readonly kind: "remove"; readonly line: number; readonly handle: number }
  | { readonly kind: "lay"; readonly line: number; readonly handle: number; readonly way: Way }
  | { readonly kind: "draw"; readonly picked: readonly Place[]; readonly closed: boolean; readonly way: Way }
  | { readonly kind: "mirror"; readonly line: number; readonly across: "x" | "y" }
  | { readonly kind: "merge"; readonly one: number; readonly other: number }
  | { readonly kind: "pull"; readonly section: number; readonly pull: Direction };

/** The layout after an edit, or why it cannot be made. */
export function edited(surface: Surface, layout: Layout, edit: HandEdit): HandResult {
  const done = (next: Layout): HandResult => ({ ok: true, layout: next });
  switch (edit.kind) {
    case "move":
      return done(moveHandle(surface, layout, edit.line, edit.handle, edit.to));
    case "nudge":
      return done(nudged(surface, layout, edit));
    case "shift":
      return done(shiftStretch(surface, layout, edit.at, edit.to, edit.lengthMm));
    case "insert":
      return done(insertHandle(layout, edit.line, edit.at));
    case "remove":
      return done(removeHandle(surface, layout, edit.line, edit.handle));
    case "lay":
      return done(layStretch(surface, layout, edit.line, edit.handle, edit.way));
    case "draw":
      return drawLine(surface, layout, edit.picked, edit);
    case "mirror":
      return mirrorLine(surface, layout, edit.line, edit.across);
    case "merge":
      return mergeSections(layout, edit.one, edit.other);
    case "pull":
      return done(withPull(layout, edit.section, edit.pull));
  }
}

function nudged(
  surface: Surface,
  layout: Layout,
  { line, handle, by }: Extract<HandEdit, { readonly kind: "nudge" }>,
): Layout {
  const held = layout.lines[line];
  const [x, y, z] = placeAt(held, held.handles[handle]);
  return moveHandle(surface, layout, line, handle, [x + by[0], y + by[1], z + by[2]]);
}

/** A section treated another way; its lines and pull stay. */
export function treated(layout: Layout, section: number, treatment: Treatment): Layout {
  return { ...layout, sections: layout.sections.map((held, s) => (s === section ? { ...held, ...treatment } : held)) };
}

export function withPull(layout: Layout, section: number, pull: Direction): Layout {
  return { ...layout, sections: layout.sections.map((held, s) => (s === section ? { ...held, pull } : held)) };
}
