/** The stations, in the order of the work. */
import { jacket } from "./jacket/index.ts";
import { materials } from "./materials/index.ts";
import { parting } from "./parting/index.ts";
import { piece } from "./piece/index.ts";
import { shell } from "./shell/index.ts";
import type { Station } from "./station.ts";
import { survey } from "./survey/index.ts";

export const STATIONS: readonly Station[] = [piece, survey, jacket, parting, shell, materials];

/** The station of an id; null where there is none, as one that a later version has. */
export function stationOf(id: string | undefined): Station | null {
  return STATIONS.find((station) => station.id === id) ?? null;
}
