/** The keys on the shown plan's jacket. */
import { useMemo } from "react";
import { jacketThicknessMm } from "../../../core/jacket/coat.ts";
import type { JacketKey } from "../../../core/keys/jacketKeys.ts";
import { builtKeys } from "../../../core/plan/builtKeys.ts";
import type { StationProps } from "../station.ts";

export type ShownKeys = readonly JacketKey[];

export function useJacketKeys({ document, planning }: Pick<StationProps, "document" | "planning">): ShownKeys {
  const { bundle, quality } = planning;
  const { shell, seat, zones, jacket } = document;
  const report = bundle?.figures.report;
  const skins = bundle?.skins;
  const lines = bundle?.lines;
  // Placed once the sections stand: a first glance would have them jump.
  // biome-ignore lint/correctness/useExhaustiveDependencies: what of the document keys depend on.
  return useMemo(() => {
    if (!report || !skins || !lines || quality !== "settled") return [];
    const sections = skins.map((skin, k) => ({ skin, pull: report.sections[k].pull }));
    const ground = { sections, lines, jacketMm: jacketThicknessMm(jacket.coats), giveMm: report.giveMm };
    return builtKeys(ground, document);
  }, [report, skins, lines, quality, shell.jacketKeys, seat.onBoard, zones.fragile, jacket.coats]);
}
