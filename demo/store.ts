/** The demo workshop's store, lived in: half-used lots, one past its date, prices of its own, and three materials of its own. */
import { MATERIALS } from "../core/materials/catalogue.ts";
import type { Lot, Store } from "../core/materials/stock.ts";

const DAY_MS = 86_400_000;

/** A day so many days off another, as 2026-11-30. */
function dayOff(today: string, days: number): string {
  return new Date(Date.parse(today) + days * DAY_MS).toISOString().slice(0, 10);
}

/** @param today as 2026-11-30: lots are as old on any day */
export function demoStore(today: string): Store {
  const lot = (
    material: string,
    amount: number,
    opened: number | null,
    expires: number | null,
    place: string,
  ): Lot => ({
    id: `demo-${material}-${place}`.toLowerCase().replace(/[^a-z0-9-]+/g, "-"),
    ...{ material, amount, place },
    openedOn: opened === null ? null : dayOff(today, opened),
    expiresOn: expires === null ? null : dayOff(today, expires),
  });
  return {
    lots: [
      lot("tin-brushable-low", 6.4, -70, 190, "Cabinet 1"),
      lot("tin-brushable-low", 3.1, -420, 60, "Cabinet 1, back"),
      lot("platinum-putty", 0.8, -20, 300, "Cabinet 1"),
      lot("casting-plaster", 17, -30, 120, "Pallet"),
      lot("polyester-resin", 9.5, -45, -12, "Yard store"),
      lot("peroxide-hardener", 0.4, -45, 90, "Cold box"),
      lot("glass-mat", 22, null, null, "Rack"),
      lot("jute-scrim", 31, null, null, "Rack"),
      lot("water-clay", 60, -200, null, "Clay bin"),
      lot("silicone-thickener", 0.15, -100, 400, "Cabinet 1"),
      lot("bolts", 46, null, null, "Drawer 3"),
      lot("release-agent", 0.7, -150, null, "Shelf 2"),
      lot("own-barrel-silicone", 11, -15, 280, "Cabinet 2"),
      lot("own-harbour-clay", 40, null, null, "Clay bin"),
    ],
    edits: {
      "casting-plaster": {
        packs: [
          { amount: 25, priceMinor: 1850 },
          { amount: 1000, priceMinor: 54_000 },
        ],
        supplier: "Builders' yard",
        shipped: MATERIALS["casting-plaster"].packs,
      },
    },
    own: [
      {
        id: "own-barrel-silicone",
        ...{ name: "Tin silicone from the barrel, 100 to 4", unit: "kg", group: "silicones", family: "tin-silicone" },
        figures: {
          ...{ densityGPerCm3: 1.18, potMin: 40, tackMin: 110, cureMin: 1200, shoreA: 22, stretchPercent: 380 },
          ...{ shrinkPercent: 0.4, shelfClosedMonths: 9, shelfOpenMonths: 5 },
        },
        mix: [
          { name: "Base", parts: 100 },
          { name: "Catalyst", parts: 4 },
        ],
        packs: [{ amount: 25, priceMinor: 49_500 }],
        hazards: ["eyes"],
        supplier: "Boat builders' mutual",
        note: "Slower than what the catalogue has; a dozen jackets so far.",
      },
      {
        id: "own-harbour-clay",
        ...{ name: "Harbour clay, dug", unit: "kg", group: "clays", family: "water-clay" },
        figures: { densityGPerCm3: 1.85, shrinkPercent: 9 },
        ...{ mix: [], packs: [], hazards: [] },
        supplier: "Low tide",
        note: "Gritty: for walls and fills, not against a fine face.",
      },
      {
        id: "own-oak-battens",
        ...{ name: "Oak battens from the pallet", unit: "m", group: "hardware", family: "timber" },
        ...{ figures: {}, mix: [], hazards: [], packs: [{ amount: 2, priceMinor: 0 }], supplier: "Yard" },
        note: "Seal before they meet plaster: tannin stains.",
      },
    ],
  };
}
