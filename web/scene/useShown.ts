/** What a station shows of a plan: everything it does not name is cleared away. */
import { useEffect } from "react";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";
import type { BundleFigures, PlanBundle } from "../../core/plan/results/bundle.ts";
import { useStage } from "./useStage.tsx";

export interface Shown {
  /** The piece itself: plaster, hidden, `own` where the station sets its look, `painter` where also its mesh. */
  readonly piece: "plaster" | "hidden" | "own" | "painter";
  readonly sections?: boolean;
  /** Only so many of the sections, the first in the order they are built; all of them where it is left out. */
  readonly upTo?: number;
  /** The jacket as well, under the sections. */
  readonly jacket?: boolean;
  readonly locks?: boolean;
  /** The fill painted on the sections by its thickness, hatched by what it is made of. */
  readonly fill?: boolean;
  /** Bodies that are shown in place of the sections' skins, in their order, and how thick their shell is, mm. */
  readonly bodies?: { readonly meshes: readonly TriangleMesh[]; readonly shellMm: number } | null;
  /** The flanges of every section, in their order. */
  readonly flanges?: readonly (readonly TriangleMesh[])[];
  /** The ribs of every section, in their order. */
  readonly ribs?: readonly (readonly TriangleMesh[])[];
}

/** What of a plan is drawn. */
type Drawn = Omit<PlanBundle, "figures"> & { readonly figures: Pick<BundleFigures, "report"> };

export function useShown(bundle: Drawn | null, onBoard: boolean, shown: Shown): void {
  const { stage } = useStage();
  const { piece, sections = false, locks = false, fill = false, jacket = false, flanges, ribs, bodies, upTo } = shown;
  // Figures are made again with every price; what is drawn is not.
  const report = bundle?.figures.report;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the report comes again with every bundle.
  useEffect(() => {
    if (!stage || !bundle || !report) return;
    if (piece !== "painter") stage.setPiece(bundle.piece, onBoard);
    if (piece === "plaster" || piece === "hidden") stage.setPieceLook({ kind: piece });
    stage.setJacket(jacket ? bundle.survey : null, 0);
    stage.setSections(
      sections
        ? bundle.skins.slice(0, upTo).map((skin, k) => ({
            number: k + 1,
            skin: bodies?.meshes[k] ?? skin,
            ...(bodies ? { numbered: { on: skin, offMm: bodies.shellMm } } : {}),
            pull: report.sections[k].pull,
            fillMm: fill ? bundle.fills[k] : null,
            fillKinds: fill ? bundle.fillKinds[k] : null,
            ...(flanges ? { flanges: flanges[k] ?? [] } : {}),
            ...(ribs ? { ribs: ribs[k] ?? [] } : {}),
          }))
        : [],
    );
    // Where there are no sections the lines are the station's own.
    if (sections) stage.setLines(bundle.lines);
    stage.setLocks(locks ? bundle.lockPoints : []);
  }, [stage, report, onBoard, piece, sections, locks, fill, jacket, flanges, ribs, bodies, upTo]);
  useEffect(() => {
    stage?.setHandles([]);
    stage?.setTags([]);
    return () => {
      stage?.setLines([]);
      stage?.setWall(null);
      stage?.setFastenings([]);
    };
  }, [stage]);
}
