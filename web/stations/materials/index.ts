import type { Station } from "../station.ts";

export const materials: Station = {
  id: "materials",
  name: "Materials",
  question: "What do I buy?",
  telling: ({ takeoff }, _document, show) => ({ state: "set", figure: show.money(takeoff.costMinor) }),
  sheet: async () => (await import("./Station.tsx")).MaterialsStation,
  middle: async () => (await import("./BuyingTable.tsx")).BuyingTable,
};
