/** `./run shots`: the pictures of the main views in docs/screenshots, from demo data in a folder of their own. */
import { spawn } from "node:child_process";
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { chromium, type Page } from "@playwright/test";
import { CHROMIUM, CHROMIUM_FLAGS } from "./browser.ts";

const PORT = "4878";
const base = `http://127.0.0.1:${PORT}`;
const folder = "docs/screenshots";
mkdirSync(folder, { recursive: true });
const app = spawn(process.execPath, ["--import", "tsx", "scripts/launch/start.ts", "demo"], {
  stdio: ["ignore", "inherit", "inherit"],
  env: { ...process.env, RIMEFELL_PORT: PORT, RIMEFELL_DATA: process.env.RIMEFELL_SHOTS_DATA ?? join("data", "shots") },
});

async function healthy(): Promise<void> {
  for (;;) {
    if (app.exitCode !== null) throw new Error("The application did not start.");
    if (
      await fetch(`${base}/api/health`).then(
        (answer) => answer.ok,
        () => false,
      )
    )
      return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

async function openAt(page: Page, piece: string, station: string): Promise<void> {
  await page.goto(base);
  await page.getByRole("link", { name: `Open ${piece}` }).click();
  await page.locator('[data-testid=tally][data-quality="settled"][data-counted="true"]').waitFor({ timeout: 400_000 });
  await page
    .getByRole("navigation", { name: "Course" })
    .getByRole("link", { name: new RegExp(station) })
    .click();
}

/** The stage draws on demand: a while after the last change it has drawn it. */
async function shoot(page: Page, name: string): Promise<void> {
  await page.waitForTimeout(600);
  await page.locator("[data-testid=stage][data-drawing]").waitFor({ state: "detached", timeout: 60_000 });
  await page.screenshot({ path: join(folder, `${name}.png`) });
  process.stdout.write(`${name}.png\n`);
}

try {
  await healthy();
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, locale: "en-GB" });
  await page.goto(base);
  await page.getByRole("heading", { name: "The lamplighter" }).waitFor();
  await shoot(page, "shelf");
  await openAt(page, "The lamplighter", "Piece");
  await page.getByRole("button", { name: "Person for size" }).click();
  await shoot(page, "piece");
  await openAt(page, "Dozing walrus", "Survey");
  const sheet = page.getByRole("complementary", { name: "Side sheet" });
  await sheet.getByRole("button", { name: "Right", exact: true }).click();
  await sheet
    .getByText(/\d\s?%/)
    .first()
    .waitFor({ timeout: 60_000 });
  await page.getByTestId("decisions").locator("li").first().waitFor({ timeout: 60_000 });
  await shoot(page, "survey");
  await page.getByRole("button", { name: "Lamp", exact: true }).click();
  await shoot(page, "survey-lamp");
  await page
    .getByRole("navigation", { name: "Course" })
    .getByRole("link", { name: /Jacket/ })
    .click();
  await shoot(page, "jacket");
  await openAt(page, "The lamplighter", "Parting");
  await shoot(page, "parting");
  await page.getByRole("button", { name: "Take the lines in hand" }).click();
  await page.getByTestId("hand").waitFor();
  await page.waitForTimeout(600);
  await page.locator('[data-testid=tally][data-quality="settled"][data-counted="true"]').waitFor({ timeout: 400_000 });
  await page.keyboard.press("]");
  await shoot(page, "parting-hand");
  await page.getByRole("button", { name: "Undo" }).click();
  await page.getByRole("button", { name: "Compare two to six sections" }).click();
  await page.getByTestId("offer-6").waitFor({ timeout: 400_000 });
  await page.getByTestId("offer-3").scrollIntoViewIfNeeded();
  await page.getByText("What would more sections cost?").scrollIntoViewIfNeeded();
  await shoot(page, "parting-compare");
  await openAt(page, "The lamplighter", "Survey");
  await page.getByTestId("decisions").locator("li").first().waitFor({ timeout: 60_000 });
  await page.getByRole("button", { name: "Zones", exact: true }).click();
  await shoot(page, "survey-zones");
  await openAt(page, "The lamplighter", "Jacket");
  await page.getByRole("button", { name: "Back", exact: true }).first().click();
  await page.getByLabel("Cut the jacket away").fill("0");
  await page.getByRole("button", { name: "Two parts" }).click();
  await page.getByTestId("seam").waitFor({ timeout: 60_000 });
  await page.getByTestId("seam").scrollIntoViewIfNeeded();
  await shoot(page, "jacket-seam");
  await page.getByRole("button", { name: "Undo" }).click();
  await openAt(page, "Dozing walrus", "Parting");
  for (const number of [1, 2]) await page.getByLabel(`Slide section ${number} out`).fill("0.35");
  await shoot(page, "parting-apart");
  await openAt(page, "The lamplighter", "Shell");
  await page.getByRole("button", { name: /^Wall 2, between/ }).click();
  await shoot(page, "shell-board");
  await page.getByRole("button", { name: "Enlarge" }).click();
  await shoot(page, "shell");
  await openAt(page, "Gulls over waves", "Materials");
  await page.getByRole("button", { name: /^Tin silicone/ }).click();
  await shoot(page, "materials");
  await openAt(page, "The lamplighter", "Materials");
  await page.getByRole("tab", { name: "Pots" }).click();
  await page.getByRole("button", { name: "Coat 2" }).click();
  await shoot(page, "materials-pots");
  await page.getByRole("tab", { name: "Compare" }).click();
  await page.getByTestId("compared-shells").waitFor();
  await shoot(page, "materials-compare");
  await page.goto(`${base}/store`);
  await page.getByText("Harbour clay, dug").first().waitFor();
  await shoot(page, "store");
  await page.goto(`${base}/settings`);
  await page.getByRole("heading", { name: "Settings" }).waitFor();
  await shoot(page, "settings");
  await browser.close();
} finally {
  app.kill("SIGTERM");
}
