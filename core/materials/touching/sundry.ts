/** Releases, hands and casts. */
import { type TouchingRule, TRADE } from "./rule.ts";

export const SUNDRY_RULES: readonly TouchingRule[] = [
  {
    id: "jelly-latex",
    pair: [["petroleum-jelly"], ["latex"]],
    at: ["hands"],
    what: "Gloves tear.",
    why: "Jelly dissolves latex.",
    remedy: "Nitrile gloves.",
    takes: { material: "nitrile-gloves", gPerM2: 0 },
    source: TRADE,
  },
  {
    id: "jelly-paint",
    pair: [["petroleum-jelly"], ["paint"]],
    at: ["cast"],
    what: "Paint will not hold on the cast.",
    why: "Grease goes over to it.",
    remedy: "Degrease the cast, or take a film.",
    source: TRADE,
  },
  {
    id: "cement-glass",
    pair: [["cement"], ["glass-fibre"]],
    at: ["cast"],
    what: "Ordinary glass loses its strength.",
    why: "Cement is alkaline.",
    remedy: "Glass that resists alkali.",
    source: TRADE,
  },
  {
    id: "cement-aluminium",
    pair: [["cement"], ["aluminium"]],
    at: ["cast", "surface"],
    what: "It gasses and pits.",
    why: "Alkali eats aluminium.",
    remedy: "Stainless steel, or seal it.",
    takes: { material: "acrylic-lacquer", gPerM2: 240 },
    source: TRADE,
  },
  {
    id: "polyester-cast-silicone",
    pair: [["polyester"], ["tin-silicone", "platinum-silicone"]],
    at: ["cast"],
    what: "Polyester casts wear a jacket out in 10 to 30.",
    why: "Styrene.",
    remedy: "Rest the jacket; barrier in a long edition.",
    source: TRADE,
  },
];
