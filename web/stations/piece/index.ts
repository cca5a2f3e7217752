import type { Station } from "../station.ts";
import { messages } from "./messages.ts";

export const piece: Station = {
  id: "piece",
  name: messages.course.name,
  question: messages.course.question,
  telling({ report: { piece: found }, wholePiece }, _document, show) {
    const open = found.openEdges + found.nonManifoldEdges > 0;
    return {
      state: !wholePiece ? "working" : open ? "look" : "set",
      figure: messages.course.high(show.length(found.sizeMm[2])),
    };
  },
  sheet: async () => (await import("./Station.tsx")).PieceStation,
};
