/** Push holes of a shell in one section. */
import { useMemo } from "react";
import { type PushHole, pushHoles } from "../../../core/keys/pushHoles.ts";
import type { StationProps } from "../station.ts";

const NONE: readonly PushHole[] = [];

export function usePushHoles({ document, planning }: Pick<StationProps, "document" | "planning">): readonly PushHole[] {
  const { bundle, quality } = planning;
  const { onBoard } = document.seat;
  const skins = bundle?.skins;
  const sections = bundle?.figures.report.sections;
  const ribs = bundle?.figures.report.spans.ribs;
  // biome-ignore lint/correctness/useExhaustiveDependencies: figures are made again with every price; pulls are not.
  return useMemo(() => {
    if (!skins || !sections || quality !== "settled") return NONE;
    return pushHoles(
      skins.map((skin, k) => ({ skin, pull: sections[k].pull })),
      onBoard ? 0 : null,
      ribs,
    );
  }, [skins, quality, onBoard, ribs]);
}
