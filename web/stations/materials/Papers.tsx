/** What is printed at the station, whatever has the middle of the page: the list, but while the pots are looked at their cards. */
import { EMPTY_STORE } from "../../../core/materials/stock.ts";
import { useStore } from "../../lib/queries.ts";
import type { StationProps } from "../station.ts";
import { BuyingList } from "./BuyingList.tsx";
import { PotCards } from "./PotCards.tsx";
import { StoreContext } from "./storeHeld.ts";
import { useTab } from "./tab.ts";

export function Papers(props: StationProps) {
  const { tab } = useTab();
  const { data } = useStore();
  return (
    <StoreContext value={data?.store ?? EMPTY_STORE}>
      {tab === "pots" ? <PotCards {...props} /> : <BuyingList {...props} />}
    </StoreContext>
  );
}
