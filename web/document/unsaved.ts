/**
 * Edits that could not be saved are kept on this machine, by part, until they are: a page that is closed in between, a
 * server that refuses or is away, lose nothing.
 */
import { z } from "zod";
import { planDocument } from "../../contract/plan.ts";

const kept = z.object({ revision: z.number().int(), document: planDocument });
export type Kept = z.infer<typeof kept>;

const nameOf = (partId: string) => `rimefell.unsaved.${partId}`;

export function keepUnsaved(partId: string, edit: Kept): void {
  try {
    localStorage.setItem(nameOf(partId), JSON.stringify(edit));
  } catch {
    // No room, or none allowed: the page warns before it is closed, as it does anyway.
  }
}

export function dropUnsaved(partId: string): void {
  try {
    localStorage.removeItem(nameOf(partId));
  } catch {
    // Nothing is kept then.
  }
}

/** What is kept of a part's plan; null where nothing is, or nothing that can be read. */
export function unsavedOf(partId: string): Kept | null {
  try {
    return kept.parse(JSON.parse(localStorage.getItem(nameOf(partId)) ?? "null"));
  } catch {
    return null;
  }
}
