import { sectionCount } from "../../lib/show.ts";
import type { Station } from "../station.ts";
import { messages } from "./messages.ts";

export const parting: Station = {
  id: "parting",
  name: messages.course.name,
  question: messages.course.question,
  telling: ({ report: { sections } }) => ({
    state: sections.every(({ releases }) => releases) ? "set" : "look",
    figure: sectionCount(sections.length),
  }),
  sheet: async () => (await import("./Station.tsx")).PartingStation,
};
