/** What is to be bought for the shown plan, less what is in store. */
import { useContext, useMemo } from "react";
import { type BuyingRow, buyingRows } from "../../../core/takeoff/buying.ts";
import { today } from "../../lib/dates.ts";
import type { StationProps } from "../station.ts";
import { StoreContext } from "./storeHeld.ts";

export function useBuying({ document, planning }: Pick<StationProps, "document" | "planning">): readonly BuyingRow[] {
  const store = useContext(StoreContext);
  const lines = planning.bundle?.figures.takeoff.materials;
  const { own } = document.materials;
  return useMemo(() => (lines ? buyingRows(lines, store, today(), own) : []), [lines, store, own]);
}
