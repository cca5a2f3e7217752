import { useContext } from "react";
import { type SearchRates, sameSearchRates } from "../../../../core/plan/document/searchRates.ts";
import { SettingsContext } from "../../../lib/show.ts";
import { messages } from "../messages.ts";

/** Says that the lines were suggested at other rates than the workshop's of today, and offers to suggest them again. */
export function PricesChanged({ suggestedAt, onAgain }: { suggestedAt: SearchRates | null; onAgain: () => void }) {
  const { rates } = useContext(SettingsContext);
  if (!suggestedAt || sameSearchRates(suggestedAt, rates)) return null;
  return (
    <div className="mt-2 rounded border border-base-300 p-2 text-sm" data-testid="prices-changed">
      <p>{messages.pricesChanged.told}</p>
      <button type="button" className="btn btn-xs mt-1" onClick={onAgain}>
        {messages.pricesChanged.again}
      </button>
    </div>
  );
}
