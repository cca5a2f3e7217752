import type { Station } from "../station.ts";

export const piece: Station = {
  id: "piece",
  name: "Piece",
  question: "What are we moulding?",
  telling({ report: { piece: found }, wholePiece }, _document, show) {
    const open = found.openEdges + found.nonManifoldEdges > 0;
    return { state: !wholePiece ? "working" : open ? "look" : "set", figure: `${show.length(found.sizeMm[2])} high` };
  },
  sheet: async () => (await import("./Station.tsx")).PieceStation,
};
