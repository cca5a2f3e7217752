import { useEffect, useRef, useState } from "react";
import type { TriangleMesh } from "../../../core/mesh/mesh.ts";
import type { Direction } from "../../../core/space/directions.ts";
import type { Geometry } from "../../workers/geometry.ts";

/** Spacing of the survey's rays on the shown mesh. */
export const SPACING_MM = 6;

export interface SurveyMap {
  /** What it was made for: another mesh has other vertices. */
  readonly mesh: TriangleMesh;
  readonly classes: Uint8Array;
  /** Share of the vertices in each class. */
  readonly shares: readonly [number, number, number];
}

/** The map for a pull, kept up with a drag: while one is being worked out the newest pull waits, older ones are dropped. */
export function useSurveyMap(
  mesh: TriangleMesh | null,
  geometry: Geometry | null,
  pull: Direction,
  draftDeg: number,
  onBoard: boolean,
): SurveyMap | null {
  const [map, setMap] = useState<SurveyMap | null>(null);
  const busy = useRef(false);
  const waiting = useRef<(() => void) | null>(null);
  const [x, y, z] = pull;
  useEffect(() => {
    if (!mesh || !geometry) {
      setMap(null);
      return;
    }
    let gone = false;
    const ask = async () => {
      busy.current = true;
      const classes = await geometry.api.map(mesh, [x, y, z], draftDeg, SPACING_MM, onBoard);
      busy.current = false;
      if (!gone) setMap({ mesh, classes, shares: sharesOf(classes) });
      const next = waiting.current;
      waiting.current = null;
      next?.();
    };
    if (busy.current) waiting.current = () => void ask();
    else void ask();
    return () => {
      gone = true;
    };
  }, [mesh, geometry, x, y, z, draftDeg, onBoard]);
  return map?.mesh === mesh ? map : null;
}

function sharesOf(classes: Uint8Array): [number, number, number] {
  const counts: [number, number, number] = [0, 0, 0];
  for (const c of classes) counts[c]++;
  return counts.map((count) => count / Math.max(1, classes.length)) as [number, number, number];
}
