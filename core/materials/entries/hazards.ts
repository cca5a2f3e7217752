/** What a material may do to whoever works with it, and what to wear: short, and deferring to its data sheet. */
export const HAZARDS = {
  dust: { name: "Dust", protect: "Dust mask and extraction; no dry sweeping." },
  burns: { name: "Burns skin while it sets", protect: "Gloves; never enclose a hand or a limb." },
  sensitises: { name: "Sensitises skin", protect: "Nitrile gloves, sleeves, ventilation. Stop if you react." },
  isocyanate: { name: "Isocyanate", protect: "Vapour respirator, gloves, ventilation. Stop if you react." },
  vapour: { name: "Vapour", protect: "Vapour respirator, ventilation, no flame." },
  flammable: { name: "Burns easily", protect: "No flame, no sparks; lidded bin for rags." },
  peroxide: {
    name: "Blinds, burns, feeds fire",
    protect: "Goggles and gloves; never near accelerator, metals or rags.",
  },
  fibres: { name: "Fibres", protect: "Sleeves, goggles, mask when cutting and trimming." },
  eyes: { name: "Irritates eyes", protect: "Goggles; rinse at once." },
  hot: { name: "Hot when used", protect: "Sleeves and gloves; water bath, never an open flame." },
  heavy: { name: "Heavy", protect: "Two people, or a trolley." },
  cuts: { name: "Cuts", protect: "Cut away from the hand; gloves when handling sheet." },
} as const;
export type HazardId = keyof typeof HAZARDS;
