import { describe, expect, it } from "vitest";
import {
  formatLength,
  formatMass,
  formatMoneyMinor,
  formatTemperature,
  formatVolume,
  formatWeighed,
  fromEntry,
  lengthEntry,
  parseAmount,
  parseLengthMm,
  parseMassG,
  parseTemperatureC,
  parseWeighedG,
  proposeUnit,
  toEntry,
} from "./index.ts";

const plain = (text: string) => text.replace(/\u2009/g, " ");

describe("figures as a shop reads them", () => {
  it.each([
    [formatLength(1942), "1 942 mm"],
    [formatLength(8), "8.0 mm"],
    [formatLength(12_340), "12.34 m"],
    [formatLength(254, "imperial"), "10.00 in"],
    [formatMass(670), "670 g"],
    [formatMass(31_468), "31.5 kg"],
    [formatMass(1000, "imperial"), "2.20 lb"],
    [formatVolume(5e5), "500 ml"],
    [formatMoneyMinor(207_096, "€"), "€ 2 070.96"],
  ])("%s", (text, want) => {
    expect(plain(text)).toBe(want);
  });
  it("both systems at once", () => {
    expect(plain(formatLength(100, "both"))).toBe("100 mm (3.94 in)");
  });
});

describe("lengths as people write them", () => {
  it.each([
    ["12", 12],
    ["12.5 mm", 12.5],
    ["1,2 m", 1200],
    ["3 cm", 30],
    ["3 1/2 in", 88.9],
    ["1/4 in", 6.35],
    ["5' 3\"", 1600.2],
    ["6 ft", 1828.8],
  ])("%s", (text, mm) => {
    expect(parseLengthMm(text)).toBeCloseTo(mm, 6);
  });
  it("a bare number is inches in an imperial shop", () => {
    expect(parseLengthMm("2", "imperial")).toBeCloseTo(50.8);
  });
  it.each(["", "wide", "3 1/0 in", "--4"])("refuses %j", (text) => {
    expect(parseLengthMm(text)).toBeNull();
  });
});

describe("the unit proposed", () => {
  it.each([
    [1900, undefined, "mm"],
    [1.9, undefined, "m"],
    [75, undefined, "cm"],
    [30, undefined, "in"],
    [1.9, "m", "m"],
    [1900, "m", "mm"],
  ] as const)("size %f, the file saying %s: %s", (size, hint, unit) => {
    expect(proposeUnit(size, hint).unit).toBe(unit);
  });
});

describe("lengths as they are typed", () => {
  it("are millimetres but in an imperial shop", () => {
    expect(lengthEntry("metric", 5)).toEqual({ unit: "mm", step: 5 });
    expect(lengthEntry("both", 0.1)).toEqual({ unit: "mm", step: 0.1 });
    expect(lengthEntry("imperial", 5)).toEqual({ unit: "in", step: 0.25 });
    expect(toEntry(25.4, "imperial")).toBe(1);
    expect(toEntry(25.4, "both")).toBe(25.4);
    expect(fromEntry(2.5, "imperial")).toBe(63.5);
    expect(fromEntry(2.5, "metric")).toBe(2.5);
  });

  it("come back as they were typed", () => {
    for (const inches of [0.1, 0.125, 1.75, 3.333, 12]) {
      expect(toEntry(fromEntry(inches, "imperial"), "imperial")).toBeCloseTo(inches, 3);
    }
  });
});

describe("masses as people write them", () => {
  it.each([
    ["12", 12_000],
    ["450g", 450],
    ["1,2 kg", 1200],
    ["2 lb 3 oz", 2 * 453.59237 + 3 * 28.349523125],
    ["8 1/2 oz", 8.5 * 28.349523125],
    ["3 pounds", 3 * 453.59237],
  ])("%s", (text, grams) => {
    expect(parseMassG(text)).toBeCloseTo(grams, 6);
  });

  it("a bare number is in pounds for imperial shops; what is no mass is not read", () => {
    expect(parseMassG("2", "imperial")).toBeCloseTo(907.18474, 6);
    for (const text of ["", "heavy", "2 mm", "-3 kg", "1/0 lb"]) expect(parseMassG(text)).toBeNull();
  });
});

describe("what is weighed at the bench", () => {
  it("is shown to the scale's step, in ounces to what that comes to", () => {
    expect(plain(formatWeighed(1756.4, 1))).toBe("1 756 g");
    expect(plain(formatWeighed(26.34, 0.1))).toBe("26.3 g");
    expect(plain(formatWeighed(1756, 1, "imperial"))).toBe("61.94 oz");
    expect(plain(formatWeighed(1756, 50, "both"))).toBe("1 756 g (62 oz)");
  });

  it("is read in grams where no unit is named; amounts in their own unit", () => {
    expect(parseWeighedG("1756")).toBe(1756);
    expect(parseWeighedG("1,5")).toBe(1.5);
    expect(parseWeighedG("2 lb 3 oz")).toBeCloseTo(992.23, 2);
    expect(parseWeighedG("2.5", "imperial")).toBeCloseTo(70.874, 3);
    expect(parseWeighedG("70 g", "imperial")).toBe(70);
    expect(parseWeighedG("some")).toBeNull();
    expect(parseAmount("2.5", "kg")).toBe(2.5);
    expect(parseAmount("450g", "kg")).toBe(0.45);
    expect(parseAmount("12", "m2")).toBe(12);
    expect(parseAmount("12 kg", "m2")).toBeNull();
    expect(parseAmount("", "pcs")).toBeNull();
  });

  it("is as warm in either scale", () => {
    expect(plain(formatTemperature(20))).toBe("20 °C");
    expect(plain(formatTemperature(20, "imperial"))).toBe("68 °F");
    expect(plain(formatTemperature(-5, "both"))).toBe("\u22125 °C (23 °F)");
    expect(parseTemperatureC("20")).toBe(20);
    expect(parseTemperatureC("68", "imperial")).toBeCloseTo(20, 9);
    expect(parseTemperatureC("68 °F")).toBeCloseTo(20, 9);
    expect(parseTemperatureC("21,5 C", "imperial")).toBe(21.5);
    for (const text of ["", "warm", "20 K", "--3"]) expect(parseTemperatureC(text)).toBeNull();
  });
});
