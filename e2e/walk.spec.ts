import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { expect, type Page, test } from "@playwright/test";
import type { AxeResults, RunOptions } from "axe-core";
import { writeStl } from "../core/export/stl.ts";
import { mushroom } from "../core/testing/shapes.ts";
import { CoursePage } from "./pages/course.ts";

const AXE = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

/**
 * What of a page keeps people out who do not see, or do not use a mouse: serious findings, each with where it is.
 * @param colours are its colours alone looked at? Nothing else of a page is otherwise by night.
 */
async function findings(page: Page, colours = false): Promise<string[]> {
  // A colour that is still fading into that of the other theme is no colour of the page.
  const fading = () =>
    page.evaluate(
      () =>
        document.getAnimations().filter((one) => one instanceof CSSTransition && one.playState === "running").length,
    );
  await expect.poll(fading).toBe(0);
  // By the debugger: the page itself lets no foreign script in.
  await page.evaluate(AXE);
  const { violations } = await page.evaluate(async (only): Promise<AxeResults> => {
    const { axe } = window as unknown as { axe: { run(options: RunOptions): Promise<AxeResults> } };
    return axe.run({
      resultTypes: ["violations"],
      ...(only ? { runOnly: { type: "rule", values: ["color-contrast", "link-in-text-block"] } } : {}),
    });
  }, colours);
  return violations
    .filter(({ impact }) => impact === "serious" || impact === "critical")
    .flatMap(({ id, nodes }) =>
      nodes.map(({ target, failureSummary }) => `${id} ${target.join(" ")}: ${failureSummary}`),
    );
}

test("every station, the shelf and the settings can be used without eyes or mouse, by day and by night", async ({
  page,
}) => {
  const course = new CoursePage(page);
  await course.dropScan("toadstool-axe.stl", writeStl(mushroom(60, 260, 130, 40, 96)));
  await course.settled();
  const found: string[] = [];
  const address = page.url().replace(/[^/]+$/, "");
  for (const theme of ["day", "night"]) {
    // By day as for people whom moving things make ill, by night with everything that moves.
    await page.emulateMedia({ reducedMotion: theme === "day" ? "reduce" : "no-preference" });
    const look = async (where: string) =>
      found.push(...(await findings(page, theme === "night")).map((finding) => `${where}: ${finding}`));
    await page.goto("/settings");
    await page.locator("select[name=theme]").selectOption(theme);
    await page.getByRole("button", { name: "Save" }).click();
    await expect(page.getByRole("status")).toHaveText("Saved");
    await look(`the settings by ${theme}`);
    await page.goto(`${address}piece`);
    await course.settled();
    for (const station of ["Piece", "Survey", "Jacket", "Parting", "Shell", "Materials"]) {
      await course.goTo(station);
      await expect(page).toHaveURL(new RegExp(`/${station.toLowerCase()}$`));
      await course.drawn();
      if (station === "Shell") await page.getByRole("button", { name: /^Wall 1, between/ }).click();
      await page.evaluate(() => {
        for (const more of document.querySelectorAll<HTMLDetailsElement>("aside details")) more.open = true;
      });
      await look(`${station} by ${theme}`);
    }
    await page.keyboard.press("/");
    // It fades in: it is looked at when it is there.
    await expect(page.getByRole("dialog")).toHaveCSS("opacity", "1");
    await expect(page.locator(".modal-box")).toHaveCSS("opacity", "1");
    await look(`the search by ${theme}`);
    // What is typed goes where it is looked for, without a click.
    await page.keyboard.type("lock");
    await page.keyboard.press("Enter");
    await expect(page).toHaveURL(/\/survey$/);
    await page.goto("/");
    await expect(page.getByRole("link", { name: /toadstool/ }).first()).toBeVisible();
    await page
      .getByRole("button", { name: /More for toadstool/ })
      .first()
      .press("Enter");
    await expect(page.getByRole("menuitem", { name: "Rename" })).toBeFocused();
    await look(`a piece's menu by ${theme}`);
    await page.keyboard.press("Escape");
    await look(`the shelf by ${theme}`);
    await page.goto("/store");
    await page.getByRole("tab", { name: "Catalogue" }).press("Enter");
    await page.getByRole("button", { name: /^Casting plaster/ }).press("Enter");
    await look(`the store by ${theme}`);
    await page.goto("/maths");
    await look(`the maths by ${theme}`);
  }
  await page.goto("/settings");
  await page.locator("select[name=theme]").selectOption("day");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("status")).toHaveText("Saved");
  expect(found).toEqual([]);
  // The check itself is awake: a button without a name is found.
  await page.evaluate(() => document.body.append(document.createElement("button")));
  expect((await findings(page)).join()).toContain("button-name");
});
