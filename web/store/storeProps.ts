import type { Store } from "../../core/materials/stock.ts";

/** What every part of the store's page is given. */
export interface StoreProps {
  readonly store: Store;
  /** Writes it; what went wrong is told above the page. */
  readonly change: (next: Store) => void;
}
