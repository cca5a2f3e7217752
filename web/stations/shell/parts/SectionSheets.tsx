import { useState } from "react";
import { paperOf } from "../../../../core/patterns/pages.ts";
import { SHEET_MM } from "../../../../core/patterns/sectionSheet.ts";
import type { BuiltWall } from "../../../../core/plan/builtWalls.ts";
import { sectionSheets } from "../../../../core/plan/sectionSheets.ts";
import { saveFile } from "../../../lib/saveFile.ts";
import { useShow } from "../../../lib/show.ts";
import { madeFrom, solidsFor, useSolids } from "../../../planning/solids.ts";
import { printSheets } from "../../../workers/print.ts";
import type { StationProps } from "../../station.ts";
import { messages } from "../messages.ts";
import { useJacketKeys } from "../useJacketKeys.ts";

const t = messages.sheets;
/** Printed on this where the paper that was chosen is too small, or a roll. */
const PLAIN = "a4";

/** A page for every section, to hang beside the work: three views, weights, walls, bolts, keys, ribs, layers. */
export function SectionSheets({
  station: { piece, document, planning },
  walls,
  paper,
}: {
  station: StationProps;
  walls: readonly BuiltWall[];
  paper: string;
}) {
  const show = useShow();
  const [busy, setBusy] = useState(false);
  const keys = useJacketKeys({ document, planning });
  const made = useSolids((held) => held.made);
  const { bundle, quality } = planning;
  if (!bundle || quality !== "settled") return null;
  const { report, takeoff, ids } = bundle.figures;
  const print = async () => {
    setBusy(true);
    const solids = solidsFor(made, madeFrom(bundle.walls, document.shell));
    const drawings = sectionSheets({
      ...{ pieceName: piece.name, document, report, walls, keys, skins: bundle.skins, ids: ids.sections },
      massesG: takeoff.sectionMassesG,
      ...(solids ? { solids: solids.sections } : {}),
      words: { length: show.length, mass: show.mass },
    });
    const { widthMm, heightMm, marginMm } = paperOf(paper);
    const fits =
      heightMm !== null && widthMm - 2 * marginMm >= SHEET_MM.width && heightMm - 2 * marginMm >= SHEET_MM.height;
    const bytes = await printSheets(t.title(piece.name), drawings, fits ? paper : PLAIN);
    setBusy(false);
    const name = piece.name.replace(/[^\w-]+/g, "-").toLowerCase();
    if (bytes) saveFile(`${name}-section-sheets.pdf`, bytes, "application/pdf");
  };
  return (
    <button type="button" className="btn btn-sm" disabled={busy} onClick={() => void print()}>
      {t.button}
    </button>
  );
}
