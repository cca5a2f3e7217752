import { chromium } from "@playwright/test";
import { CHROMIUM, CHROMIUM_FLAGS } from "./browser.ts";

const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on("pageerror", (e) => console.log("pageerror", e.message));
await page.goto("http://127.0.0.1:4891");
await page.getByRole("link", { name: `Open ${process.argv[2] ?? "The lamplighter"}` }).click();
await page.locator('[data-testid=tally][data-quality="settled"]').waitFor({ timeout: 120000 });
await page
  .getByRole("navigation", { name: "Course" })
  .getByRole("link", { name: /Parting/ })
  .click();
await page.waitForTimeout(900);
await page.screenshot({ path: "/work/scratch/p1.png" });
for (const v of ["Front", "Back", "Left", "Right"]) {
  await page.getByRole("button", { name: v, exact: true }).click();
  await page.waitForTimeout(700);
  await page.locator("[data-testid=stage]").screenshot({ path: `/work/scratch/v-${v}.png` });
}
if (process.argv[3]) {
  await page.locator("section button[aria-expanded]").first().click();
  const t = Date.now();
  await page.getByRole("button", { name: "Where could it be pulled?" }).click();
  await page.getByTestId("range-1").waitFor({ timeout: 60000 });
  console.log("range", Date.now() - t);
  await page.getByTestId("range-1").scrollIntoViewIfNeeded();
  await page.screenshot({ path: "/work/scratch/p2.png" });
}
await browser.close();
