import { type Station, stations } from "../../contract/pieces.ts";

export const stationNames: Readonly<Record<Station, string>> = {
  piece: "Piece",
  survey: "Survey",
  jacket: "Jacket",
  parting: "Parting",
  materials: "Materials",
};

/** The question each station answers, as people ask it. */
export const stationQuestions: Readonly<Record<Station, string>> = {
  piece: "What are we moulding?",
  survey: "Where would it lock?",
  jacket: "How thick, how smooth?",
  parting: "Where do I part it?",
  materials: "What do I buy?",
};

export function isStation(text: string | undefined): text is Station {
  return stations.some((station) => station === text);
}

export const sectionCount = (count: number) => `${count} ${count === 1 ? "section" : "sections"}`;
