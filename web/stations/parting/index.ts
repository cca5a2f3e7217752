import { sectionCount } from "../../lib/show.ts";
import type { Station } from "../station.ts";

export const parting: Station = {
  id: "parting",
  name: "Parting",
  question: "Where do I part it?",
  telling: ({ report: { sections } }) => ({
    state: sections.every(({ releases }) => releases) ? "set" : "look",
    figure: sectionCount(sections.length),
  }),
  sheet: async () => (await import("./Station.tsx")).PartingStation,
};
