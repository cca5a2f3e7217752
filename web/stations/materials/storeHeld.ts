/** The workshop's store, for the tables that take from it; an empty one until it is fetched. */
import { createContext } from "react";
import { EMPTY_STORE, type Store } from "../../../core/materials/stock.ts";

export const StoreContext = createContext<Store>(EMPTY_STORE);
