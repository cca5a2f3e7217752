import type { Station } from "../station.ts";
import { messages } from "./messages.ts";

export const shell: Station = {
  id: "shell",
  name: messages.course.name,
  question: messages.course.question,
  telling: ({ report }) => ({ state: "set", figure: messages.course.walls(report.walls.length) }),
  sheet: async () => (await import("./Station.tsx")).ShellStation,
  middle: async () => (await import("./DrawingBoard.tsx")).DrawingBoard,
};
