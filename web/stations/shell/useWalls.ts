/** The walls of the shown plan as they are built, with the bolt under the finger where it has got to; and their edits. */
import { useMemo } from "react";
import { type BoltPlace, chosen, type FlangeSettings, type WallChoice } from "../../../core/flange/settings.ts";
import { type BuiltWall, builtWalls } from "../../../core/plan/builtWalls.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { usePlan } from "../../document/planStore.ts";
import type { StationProps } from "../station.ts";
import { usePicked } from "./picked.ts";

/** What walls are built from; the same walls for the sheet, the board and the stage. */
const built = new WeakMap<
  object,
  { shell: PlanDocument["shell"]; onBoard: boolean; ids: string; walls: readonly BuiltWall[] }
>();

export function useWalls({ document, planning }: Pick<StationProps, "document" | "planning">): readonly BuiltWall[] {
  const dragged = usePicked((picked) => picked.dragged);
  const grounds = planning.bundle?.walls;
  const lines = planning.bundle?.figures.ids.lines.join() ?? "";
  const { seat } = document;
  const shell = useMemo(() => {
    if (!dragged) return document.shell;
    const id = lines.split(",")[dragged.wall - 1];
    const held = id && grounds && boltsOf(known(grounds), dragged.wall);
    if (!id || !held) return document.shell;
    const bolts = held.map((place, k) => (k === dragged.bolt ? dragged.place : place));
    return { ...document.shell, flanges: chosen(document.shell.flanges, id, { bolts }) };
  }, [document.shell, dragged, lines, grounds]);
  return useMemo(() => {
    if (!grounds) return [];
    const held = built.get(grounds);
    if (held && held.shell === shell && held.onBoard === seat.onBoard && held.ids === lines) return held.walls;
    const walls = builtWalls(grounds, { shell, seat }, lines ? lines.split(",") : []);
    built.set(grounds, { shell, onBoard: seat.onBoard, ids: lines, walls });
    return walls;
  }, [grounds, shell, seat, lines]);
}

function known(grounds: object): readonly BuiltWall[] {
  return built.get(grounds)?.walls ?? [];
}

/** Where the bolts of a wall stand. @param number of the wall, from one */
export function boltsOf(walls: readonly BuiltWall[], number: number): BoltPlace[] | null {
  const wall = walls[number - 1];
  return wall ? wall.fastenings.bolts.map(({ alongMm, offMm }) => ({ alongMm, offMm })) : null;
}

/** Edits of what is decided about flanges, each one step of undo. */
export function useFlangeEdits() {
  const edit = usePlan((plan) => plan.edit);
  return useMemo(() => {
    const set = (change: (flanges: FlangeSettings) => FlangeSettings) =>
      edit((plan) => ({ ...plan, shell: { ...plan.shell, flanges: change(plan.shell.flanges) } }));
    return {
      set,
      /** Decides something for one wall. */
      choose: (id: string, change: Partial<Omit<WallChoice, "id">>) => set((flanges) => chosen(flanges, id, change)),
    };
  }, [edit]);
}

/** A place on a wall to what a pencil marks: whole millimetres. */
export function wholeMm({ alongMm, offMm }: BoltPlace): BoltPlace {
  return { alongMm: Math.max(0, Math.round(alongMm)), offMm: Math.max(0, Math.round(offMm)) };
}
