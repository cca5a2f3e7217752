import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MATERIAL_IDS, MATERIALS } from "./catalogue.ts";
import { FIGURES, GROUPS } from "./entries/entry.ts";
import { HAZARDS } from "./entries/hazards.ts";
import { EMPTY_STORE, type Lot, lotState, storedEntries, takeFromStock } from "./stock.ts";
import { readStock, stockCsv } from "./stockTable.ts";

const entries = storedEntries(EMPTY_STORE);
const tin = entries.find(({ id }) => id === "tin-brushable");
const lot = (id: string, amount: number, openedOn: string | null = null, expiresOn: string | null = null): Lot => ({
  ...{ id, material: "tin-brushable", amount, openedOn, expiresOn, place: "shelf 2" },
});
const TODAY = "2026-11-30";

describe("the catalogue", () => {
  it("has about ninety materials, each with its shelf, its unit, known figures and hazards, and no name twice", () => {
    expect(MATERIAL_IDS.length).toBeGreaterThanOrEqual(90);
    expect(new Set(Object.values(MATERIALS).map(({ name }) => name)).size).toBe(MATERIAL_IDS.length);
    for (const entry of entries) {
      expect(Object.keys(GROUPS)).toContain(entry.group);
      for (const [key, value] of Object.entries(entry.figures)) {
        expect(Object.keys(FIGURES)).toContain(key);
        expect(value).toBeGreaterThanOrEqual(0);
      }
      for (const hazard of entry.hazards) expect(Object.keys(HAZARDS)).toContain(hazard);
      // A larger pack is never dearer by amount.
      const by = entry.packs.map(({ amount, priceMinor }) => priceMinor / amount);
      expect(by).toEqual([...by].sort((a, b) => b - a));
    }
  });

  it("tells where a shipped price has changed since the workshop put in its own", () => {
    const { packs } = MATERIALS["water-clay"];
    const edit = { packs: [{ amount: 10, priceMinor: 950 }], supplier: "the pit", shipped: packs };
    const own = (shipped: typeof edit.shipped | { amount: number; priceMinor: number }[]) =>
      storedEntries({ ...EMPTY_STORE, edits: { "water-clay": { ...edit, shipped } } }).find(
        ({ id }) => id === "water-clay",
      );
    expect(own(packs)).toMatchObject({ packs: edit.packs, supplier: "the pit", shippedNow: null });
    expect(own([{ amount: 10, priceMinor: 1 }])?.shippedNow).toEqual(packs);
  });
});

describe("lots", () => {
  it("are expired past their date, old when opened longer ago than they keep, good else", () => {
    expect(lotState(lot("a", 1, null, "2026-11-29"), tin, TODAY)).toEqual({ kind: "expired" });
    expect(lotState(lot("a", 1, null, "2026-11-30"), tin, TODAY)).toEqual({ kind: "good" });
    expect(lotState(lot("a", 1, "2025-09-20"), tin, TODAY)).toEqual({ kind: "old", months: 14 });
    expect(lotState(lot("a", 1, "2026-10-01"), tin, TODAY)).toEqual({ kind: "good" });
    expect(lotState(lot("a", 1, "1999-01-01"), undefined, TODAY)).toEqual({ kind: "good" });
  });

  it("are used first by date, what has expired is left, and no more is taken than is there", () => {
    const lots = [
      lot("late", 5, null, "2027-09-01"),
      lot("gone", 9, null, "2026-01-01"),
      lot("soon", 2, null, "2026-12-24"),
      lot("open", 3, "2026-10-01"),
    ];
    const { taken, missing } = takeFromStock(8, lots, tin, TODAY);
    expect(taken.map((each) => [each.lot.id, each.amount])).toEqual([
      ["soon", 2],
      ["late", 5],
      ["open", 1],
    ]);
    expect(missing).toBe(0);
    const amounts = fc.array(fc.double({ min: 0, max: 20, noNaN: true }), { maxLength: 6 });
    fc.assert(
      fc.property(fc.double({ min: 0, max: 100, noNaN: true }), amounts, (need, all) => {
        const held = all.map((amount, k) => lot(`lot-${k}`, amount));
        const found = takeFromStock(need, held, tin, TODAY);
        const sum = found.taken.reduce((total, { amount }) => total + amount, 0);
        expect(sum + found.missing).toBeCloseTo(need, 9);
        for (const each of found.taken) expect(each.amount).toBeLessThanOrEqual(each.lot.amount);
      }),
    );
  });
});

describe("stock as a table", () => {
  const lots = [lot("a", 2.5, "2026-10-01", "2027-01-01"), lot("b", 1)];

  it("goes out and comes in as it was", () => {
    const read = readStock(stockCsv(lots, entries), lots, entries, String);
    expect(read.problems).toEqual([]);
    expect(read.same).toBe(2);
    expect(read.lots).toEqual(lots);
  });

  it("is shown with what would come and change, and what is wrong with which line", () => {
    const text = [
      "material,amount,unit,opened,expires,place,lot",
      "tin-brushable,2,kg,2026-10-01,2027-01-01,shelf 2,a",
      'Water clay,"12,5",,,,cellar,',
      "unobtainium,1,kg,,,,",
      "tin-brushable,lots,kg,,,,",
      "tin-brushable,1,l,,,,",
      "tin-brushable,1,kg,yesterday,,,",
    ].join("\n");
    const read = readStock(text, lots, entries, (line) => `new-${line}`);
    expect(read.changes.map(({ from, to }) => [from.amount, to.amount])).toEqual([[2.5, 2]]);
    expect(read.comes).toEqual([
      { id: "new-3", material: "water-clay", amount: 12.5, openedOn: null, expiresOn: null, place: "cellar" },
    ]);
    expect(read.problems.map(({ line }) => line)).toEqual([4, 5, 6, 7]);
    expect(read.problems[0].what).toContain("unobtainium");
    expect(read.problems[2].what).toContain("counted in kg");
    // What is not named stays.
    expect(read.lots.map(({ id }) => id)).toEqual(["a", "b", "new-3"]);
  });
});
