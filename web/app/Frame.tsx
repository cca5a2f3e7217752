import { useEffect } from "react";
import { Outlet } from "react-router";
import { DEFAULT_SETTINGS } from "../../contract/settings.ts";
import { useSession } from "../lib/queries.ts";
import { SettingsContext } from "../lib/show.ts";

/** Settings for all that is inside; the theme on the page. */
export function Frame() {
  const { data } = useSession();
  const settings = data?.settings ?? { ...DEFAULT_SETTINGS, memberName: "" };
  useEffect(() => {
    document.documentElement.dataset.theme = settings.theme === "night" ? "rime-night" : "rime-day";
  }, [settings.theme]);
  return (
    <SettingsContext value={settings}>
      <Outlet />
    </SettingsContext>
  );
}
