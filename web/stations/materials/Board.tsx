/** The tables of the station, one at a time: build-up, pots, buying, cautions, and the shells side by side. */
import { EMPTY_STORE } from "../../../core/materials/stock.ts";
import { useStore } from "../../lib/queries.ts";
import type { StationProps } from "../station.ts";
import { BuildUp } from "./BuildUp.tsx";
import { BuyingTable } from "./BuyingTable.tsx";
import { Compare } from "./Compare.tsx";
import { Costs } from "./Costs.tsx";
import { messages } from "./messages.ts";
import { PotsTable } from "./PotsTable.tsx";
import { StoreContext } from "./storeHeld.ts";
import { TouchingTable } from "./TouchingTable.tsx";
import { TABS, type Tab, useTab } from "./tab.ts";

const PANES: Readonly<Record<Tab, (props: StationProps) => React.ReactNode>> = {
  buildUp: BuildUp,
  pots: PotsTable,
  buying: BuyingTable,
  costs: Costs,
  cautions: TouchingTable,
  compare: Compare,
};

export function MaterialsBoard(props: StationProps) {
  const { tab, open } = useTab();
  const Pane = PANES[tab];
  const { data } = useStore();
  return (
    <section className="px-6 py-4 pb-56">
      <div role="tablist" aria-label={messages.course.name} className="join mb-4">
        {TABS.map((name) => (
          <button
            key={name}
            type="button"
            role="tab"
            aria-selected={tab === name}
            className={`btn btn-sm join-item ${tab === name ? "btn-neutral" : "border-base-300 bg-base-100"}`}
            onClick={() => open(name)}
          >
            {messages.tabs[name]}
          </button>
        ))}
      </div>
      <StoreContext value={data?.store ?? EMPTY_STORE}>
        <Pane {...props} />
      </StoreContext>
    </section>
  );
}
