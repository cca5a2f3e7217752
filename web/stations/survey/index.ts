import type { Station } from "../station.ts";

export const survey: Station = {
  id: "survey",
  name: "Survey",
  question: "Where would it lock?",
  telling({ report: { sections } }) {
    const filled = sections.filter(({ fillMm3 }) => fillMm3 > 0).length;
    return { state: "set", figure: filled === 0 ? "no locks" : `locks in ${filled} of ${sections.length}` };
  },
  sheet: async () => (await import("./Station.tsx")).SurveyStation,
};
