import { useEffect, useMemo } from "react";
import { Outlet } from "react-router";
import { DEFAULT_SETTINGS } from "../../contract/settings.ts";
import { ownPacks } from "../../core/materials/stock.ts";
import { useSession, useStore } from "../lib/queries.ts";
import { SettingsContext } from "../lib/show.ts";

const NOBODYS = { ...DEFAULT_SETTINGS, memberName: "" };

/** Settings and prices for all that is inside; the theme on the page. */
export function Frame() {
  const { data } = useSession();
  const settings = data?.settings ?? NOBODYS;
  useEffect(() => {
    document.documentElement.dataset.theme = settings.theme === "night" ? "rime-night" : "rime-day";
  }, [settings.theme]);
  const store = useStore().data?.store;
  // What is paid for materials stands in the store: costs go by it wherever they are told.
  const priced = useMemo(
    () => (store ? { ...settings, rates: { ...settings.rates, packs: ownPacks(store) } } : settings),
    [settings, store],
  );
  return (
    <SettingsContext value={priced}>
      <Outlet />
    </SettingsContext>
  );
}
