import type { Station } from "../station.ts";
import { messages } from "./messages.ts";

export const survey: Station = {
  id: "survey",
  name: messages.course.name,
  question: messages.course.question,
  telling({ report: { sections } }) {
    const filled = sections.filter(({ fillMm3 }) => fillMm3 > 0).length;
    return {
      state: "set",
      figure: filled === 0 ? messages.course.noLocks : messages.course.locksIn(filled, sections.length),
    };
  },
  sheet: async () => (await import("./Station.tsx")).SurveyStation,
};
