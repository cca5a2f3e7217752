import type { Station } from "../station.ts";
import { messages } from "./messages.ts";

export const materials: Station = {
  id: "materials",
  name: messages.course.name,
  question: messages.course.question,
  telling: ({ takeoff }, _document, show) => ({ state: "set", figure: show.money(takeoff.costMinor) }),
  sheet: async () => (await import("./Station.tsx")).MaterialsStation,
  middle: async () => (await import("./Board.tsx")).MaterialsBoard,
};
