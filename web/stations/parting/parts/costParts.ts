import type { CostPart } from "../../../../core/parting/search/price.ts";
import { messages } from "../messages.ts";

/** What the parts of the cost are called, and their shades by day and night. */
export const PARTS: Readonly<
  Record<CostPart, { readonly name: string; readonly day: string; readonly night: string }>
> = {
  fill: { name: "fill", day: "#b3401f", night: "#e2794f" },
  wall: { name: messages.costParts.partingWall, day: "#1e4e8c", night: "#7fa8dc" },
  finishing: { name: messages.costParts.finishingSeams, day: "#8fb0c4", night: "#bcd3e2" },
  zones: { name: messages.costParts.linesThroughZones, day: "#743655", night: "#c58aa6" },
  setup: { name: messages.costParts.settingUp, day: "#6d6352", night: "#a8997f" },
  wait: { name: "waiting", day: "#c9bfa8", night: "#6f675a" },
  lift: { name: messages.costParts.liftingThePiece, day: "#5f918e", night: "#8fbab7" },
  handling: { name: "handling", day: "#2f6b4f", night: "#74b594" },
};
