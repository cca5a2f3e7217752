/** A piece as the server tells of it, for tests of what shows it. */
import type { Piece } from "../../contract/pieces.ts";

export const FINIAL: Piece = {
  id: "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e5f",
  name: "Finial",
  parts: [
    {
      id: "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e5a",
      name: "Whole",
      scanId: "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e60",
      scanName: "finial.stl",
      scanBytes: 1000,
      scanSha256: "a".repeat(64),
    },
  ],
  station: "piece",
  away: false,
  hasCover: true,
  summary: "",
  createdAt: "2026-03-02T09:15:00.000Z",
  updatedAt: "2026-03-02T09:15:00.000Z",
};
