import { jacketThicknessMm, THICK_JACKET_MM } from "../../../core/jacket/coat.ts";
import type { Station } from "../station.ts";
import { messages } from "./messages.ts";

export const jacket: Station = {
  id: "jacket",
  name: messages.course.name,
  question: messages.course.question,
  telling: ({ report }, document, show) => ({
    state: jacketThicknessMm(document.jacket.coats) > THICK_JACKET_MM ? "look" : "set",
    figure: show.mass(report.jacket.siliconeG),
  }),
  sheet: async () => (await import("./Station.tsx")).JacketStation,
};
