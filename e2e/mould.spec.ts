import { expect, test } from "@playwright/test";
import { writeStl } from "../core/export/stl.ts";
import { mushroom } from "../core/testing/shapes.ts";
import { makeLamplighter } from "../demo/pieces/lamplighter.ts";
import { CoursePage } from "./pages/course.ts";

/** What a press may wait for the page while the workers compute and draw, on a plain machine. */
const LONGEST_TASK_MS = 100;

const small = writeStl(mushroom(60, 260, 130, 40, 96));

test("from a dropped scan to a buying list, kept over a reload", async ({ page }) => {
  const course = new CoursePage(page);
  await page.goto("/");
  await expect(page.getByText("Drop a scan of your piece here.")).toBeVisible();
  await course.dropScan("toadstool.stl", small);
  await course.settled();
  await expect(page.getByText("300\u2009mm").first()).toBeVisible();

  await test.step("a jacket edit moves the tally, and undo brings it back", async () => {
    await course.goTo("Jacket");
    const before = await course.tally("Silicone").textContent();
    await page.getByLabel("Thickness of coat 2").fill("6");
    await expect(course.tally("Silicone")).not.toHaveText(before ?? "");
    await course.settled();
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(course.tally("Silicone")).toHaveText(before ?? "");
    await course.settled();
    await course.saved();
  });

  await course.goTo("Parting");
  await expect(page.getByTestId("verdict")).toContainText("Yes: all");
  await expect.poll(() => course.foreignFonts(), { timeout: 30_000 }).toEqual([]);
  await course.goTo("Shell");
  await expect(page.getByTestId("walls-verdict")).toContainText("Yes");
  await page.getByRole("button", { name: /^Wall 1, between/ }).click();
  const shellBefore = await course.tally("Shell").textContent();
  await page.getByLabel("Its own width").fill("80");
  await expect(course.tally("Shell")).not.toHaveText(shellBefore ?? "");
  const printed = page.waitForEvent("download");
  await page.getByRole("button", { name: "Print this one" }).click();
  expect((await printed).suggestedFilename()).toBe("toadstool-walls-a4.pdf");
  await course.goTo("Materials");
  const middle = page.getByTestId("middle");
  await expect(middle.getByRole("button", { name: /^Tin silicone/ })).toBeVisible();
  await page.getByRole("tab", { name: "Pots" }).click();
  await middle.getByRole("button", { name: "Coat 1" }).click();
  await expect(page.getByTestId("weigh-out")).toContainText("Catalyst");
  const plaster = await course.tally("Shell").textContent();
  await page.getByRole("tab", { name: "Compare" }).click();
  await middle.getByRole("button", { name: "Switch to Polyester and glass mat" }).click();
  await course.settled();
  await expect(course.tally("Shell")).not.toHaveText(plaster ?? "");
  await expect(page.getByTestId("tally-difference").first()).toBeVisible();
  await course.saved();

  const started = Date.now();
  await page.reload();
  await course.settled();
  const reloadedMs = Date.now() - started;
  expect(reloadedMs).toBeLessThan(5000 * (await course.slowness()));
  await expect(middle.getByRole("button", { name: "Laminating polyester resin" })).toBeVisible();

  // What the store has is taken off.
  await page.goto("/store");
  await page.getByRole("combobox", { name: /^Material/ }).selectOption("Laminating polyester resin");
  await page.getByLabel(/^Amount, kg/).fill("50");
  await page.getByRole("button", { name: "Put it in the store" }).click();
  await expect(page.getByLabel("Amount of Laminating polyester resin")).toHaveValue("50");
  await page.goBack();
  await course.settled();
  const resin = middle.getByRole("row").filter({ hasText: "Laminating polyester resin" });
  await expect(resin.getByRole("cell").last()).toHaveText("");
});

test("two windows on one plan: the second is told and chooses", async ({ browser }) => {
  const [one, two] = [await browser.newPage(), await browser.newPage()];
  const first = new CoursePage(one);
  await first.dropScan("toadstool-four.stl", small);
  await first.settled();
  await first.saved();
  await two.goto(one.url());
  const second = new CoursePage(two);
  await second.settled();
  const stored = one.waitForResponse((answer) => answer.request().method() === "PUT" && answer.url().endsWith("/plan"));
  await one.getByLabel("Edition").fill("12");
  expect((await stored).status()).toBe(200);
  // Once its plan is settled it is saved again, with the ids of what was planned: the choice is between two plans that stand.
  await first.settled();
  await first.saved();
  await two.getByLabel("Edition").fill("30");
  await expect(two.getByRole("alertdialog")).toContainText("changed in another window");
  await two.getByRole("button", { name: "Go on with mine" }).click();
  await second.saved();
  await one.reload();
  await expect(one.getByLabel("Edition")).toHaveValue("30");
});

test("a file that is no scan is refused in plain words", async ({ page }) => {
  const course = new CoursePage(page);
  await course.dropScan("letter.stl", Buffer.from("Dear workshop, the scan follows tomorrow. ".repeat(10)));
  await expect(page.getByRole("alert")).toContainText("STL");
});

test("a scan of a real piece's size: coarse answer first, the page stays awake, cancel works", async ({ page }) => {
  const course = new CoursePage(page);
  await course.settleBy("usual");
  const scan = writeStl(makeLamplighter(6.5));
  // Waited for from the start: it goes when the piece opens.
  const glance = page
    .getByRole("region", { name: "At a first glance" })
    .filter({ hasText: /≈ \d sections/ })
    .waitFor({ timeout: 60_000 });
  // Once a worker practises: it must let go of that.
  const practising = page.waitForEvent("worker", (worker) => worker.url().includes("geometry"));
  await page.goto("/");
  await practising;
  await course.watchHolds();
  await course.drop("lamplighter.stl", scan);
  await glance;
  await page.waitForURL(/\/pieces\//);
  await expect(page.getByTestId("tally")).toHaveAttribute("data-quality", /coarse|settled/);
  await course.settled();
  await expect(page.getByText(/1\u20099\d\d\u2009mm/).first()).toBeVisible();
  const { workedMs, clockMs } = await course.longestHold();
  console.log(`longest task of the page: ${Math.round(workedMs)} ms of work, ${Math.round(clockMs)} ms by the clock`);
  expect(workedMs).toBeLessThan(LONGEST_TASK_MS * (await course.slowness()));
  await course.goTo("Jacket");
  await page.getByLabel("Smoothing").fill("26");
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText(/Stopped/)).toBeVisible();
  await page.getByRole("button", { name: "Try again" }).click();
  await expect(page.getByText(/Stopped/)).toHaveCount(0);
  await expect(page.getByRole("progressbar").first()).toBeVisible();
  await course.settleBy("quick");
});
