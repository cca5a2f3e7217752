import { describe, expect, it } from "vitest";
import { DEFAULT_SETTINGS } from "../../contract/settings.ts";
import { MONEY, settingsForm, shown } from "./settingsForm.ts";

const settings = { ...DEFAULT_SETTINGS, memberName: "Workshop" };

describe("the settings as they are edited", () => {
  it("come back as they were kept, money to the penny", () => {
    expect(settingsForm.parse(shown(settings))).toEqual(settings);
    const [key] = MONEY[0];
    const form = shown(settings);
    const read = settingsForm.parse({ ...form, rates: { ...form.rates, [key]: 24.29 } });
    expect(read.rates[key]).toBe(2429);
  });

  it("are refused at their place where they are no numbers", () => {
    const form = shown(settings);
    const [key] = MONEY[0];
    const read = settingsForm.safeParse({ ...form, memberName: "", rates: { ...form.rates, [key]: Number.NaN } });
    expect(read.error?.issues.map(({ path }) => path.join(".")).sort()).toEqual(["memberName", `rates.${key}`].sort());
  });
});
