import { useEffect } from "react";
import { type Stop, stopMesh } from "../../core/jacket/stops.ts";
import { useStage } from "./useStage.tsx";

/** The webs of clay in the piece's through-holes, on the stage at every station. */
export function Clay({ stops, onBoard }: { stops: readonly Stop[]; onBoard: boolean }) {
  const { stage } = useStage();
  useEffect(() => stage?.setClay(stops.map((stop) => stopMesh(stop, onBoard))), [stage, stops, onBoard]);
  return null;
}
