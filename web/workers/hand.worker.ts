/** The worker for lines laid by hand: holds the surface they lie on, makes edits and glances at what they come to. */
import * as Comlink from "comlink";
import { plainContext } from "../../core/job/context.ts";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";
import { edited, type HandEdit } from "../../core/parting/layout/edit.ts";
import type { Layout } from "../../core/parting/layout/layout.ts";
import { Glance, type GlanceResult } from "../../core/plan/advice/glance.ts";
import type { Zones } from "../../core/survey/zones.ts";

/** What a glance depends on besides the layout. */
export interface GlanceTerms {
  readonly zones: Zones;
  /** How far the jacket lies over the piece. */
  readonly overMm: number;
}

export type HandAnswer =
  | { readonly ok: true; readonly layout: Layout; readonly glance: GlanceResult }
  | { readonly ok: false; readonly problem: string };

class HandWorker {
  private glance: Glance | null = null;

  /** Takes up the mesh that lines are laid on. */
  takeUp(mesh: TriangleMesh, onBoard: boolean): void {
    this.glance = new Glance(mesh, onBoard ? 0 : null, plainContext);
  }

  /** A layout after an edit, or as it is. */
  edit(layout: Layout, change: HandEdit | null, terms: GlanceTerms): HandAnswer {
    const { glance } = this;
    if (!glance) return { ok: false, problem: "The plan is not there yet." };
    const result = change ? edited(glance.surface, layout, change) : { ok: true as const, layout };
    if (!result.ok) return result;
    const { zones, overMm } = terms;
    return { ok: true, layout: result.layout, glance: glance.look(result.layout, zones, overMm) };
  }
}

export type HandApi = HandWorker;
Comlink.expose(new HandWorker());
