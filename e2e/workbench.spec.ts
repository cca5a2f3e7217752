import { chromium, expect, test } from "@playwright/test";
import { writeStl } from "../core/export/stl.ts";
import { plainContext } from "../core/job/context.ts";
import { readScan } from "../core/mesh/io/index.ts";
import { areaAndVolume, type TriangleMesh } from "../core/mesh/mesh.ts";
import { directionFrom } from "../core/space/directions.ts";
import { capsule, moved, mushroom } from "../core/testing/shapes.ts";
import { CHROMIUM, CHROMIUM_FLAGS } from "../scripts/browser.ts";
import { CoursePage } from "./pages/course.ts";
import { StagePage } from "./pages/stage.ts";

const bollard = moved(capsule(90, 240, 24), 0, 0, 210);

/** The same body as an OBJ, in its plainest form. */
function asObj({ positions: p, triangles: t }: TriangleMesh): Uint8Array {
  const lines: string[] = [];
  for (let k = 0; k < p.length; k += 3) lines.push(`v ${p[k]} ${p[k + 1]} ${p[k + 2]}`);
  for (let k = 0; k < t.length; k += 3) lines.push(`f ${t[k] + 1} ${t[k + 1] + 1} ${t[k + 2] + 1}`);
  return new TextEncoder().encode(`${lines.join("\n")}\n`);
}

test("an OBJ is dropped; the plan's files are taken away after a reload and are what they say", async ({ page }) => {
  const course = new CoursePage(page);
  await course.dropScan("bollard.obj", asObj(bollard));
  await course.settled();
  await course.goTo("Parting");
  // Opened again, the plan comes ready from the server: the files must be worked out first.
  await page.reload();
  await course.settled();
  const take = async (label: string) => {
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: label }).click();
    const stream = await (await download).createReadStream();
    const chunks: Buffer[] = [];
    for await (const chunk of stream) chunks.push(chunk as Buffer);
    return new Uint8Array(Buffer.concat(chunks));
  };
  const jacket = (await readScan(await take("Filled jacket, STL"), "jacket.stl", plainContext)).mesh;
  expect(areaAndVolume(jacket).volumeMm3).toBeGreaterThan(areaAndVolume(bollard).volumeMm3);
  const whole = (await readScan(await take("Sections, GLB"), "plan.glb", plainContext)).mesh;
  expect(whole.triangles.length).toBeGreaterThan(jacket.triangles.length);
  const lines = JSON.parse(new TextDecoder().decode(await take("Lines, JSON")));
  expect(JSON.stringify(lines)).toContain("sections");
  expect(new TextDecoder().decode(await take("Lines, DXF"))).toMatch(/POLYLINE[\s\S]+EOF/);
});

test("a section's pull is dragged by its arrow; plans of more sections are compared and one is taken; it is taken apart in order", async ({
  page,
}) => {
  const course = new CoursePage(page);
  await course.dropScan("bollard.stl", writeStl(bollard));
  await course.settled();
  await course.goTo("Parting");
  await page
    .getByRole("button", { name: /Comes off/ })
    .first()
    .click();
  await page.getByLabel("Bearing").fill("90");
  await course.settled();
  const elevation = page.getByLabel("Elevation");
  const bearing = page.getByLabel("Bearing");
  // Who blocks whom may number the sections again: the arrow is that of the section whose card is open, when it is pressed.
  await expect(async () => {
    const stage = await StagePage.lookedAtFrom(page, bollard, "front");
    const knob = stage.knob(directionFrom(Number(await bearing.inputValue()), 0));
    await stage.drag(knob, { x: knob.x, y: knob.y - 90 });
    expect(Number(await elevation.inputValue())).toBeGreaterThan(5);
  }).toPass({ timeout: 100_000 });
  await expect(page.getByText("pulls set by hand")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(elevation).toHaveValue("0");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("pulls set by hand")).toHaveCount(0);
  await course.settled();
  await page.getByRole("button", { name: "Compare two to six sections" }).click();
  await expect(page.getByTestId("offer-6")).toBeVisible();
  await expect(page.getByTestId("offer-3")).toContainText("A third section");
  await page.getByTestId("offer-3").getByRole("button", { name: "Take this one" }).click();
  await expect(course.tally("Sections")).toHaveText("3");
  await course.settled();
  await expect(page.getByTestId("verdict")).toContainText("Yes: all 3");
  await page.emulateMedia({ reducedMotion: "no-preference" });
  await page.getByRole("button", { name: "Take apart" }).click();
  const slider = page.getByLabel("How far it is taken apart");
  await expect(slider).toHaveValue("3");
  await page.emulateMedia({ reducedMotion: "reduce" });
  await page.getByRole("button", { name: "Build up" }).click();
  await expect(slider).toHaveValue("0");
});

test("a globe shows from where a section comes free; one with a great fill is told how to do with less; one that is held stops the taking apart", async ({
  page,
}) => {
  const course = new CoursePage(page);
  await course.dropScan("toadstool-globe.stl", writeStl(mushroom(60, 260, 130, 40, 96)));
  await course.settled();
  await course.goTo("Parting");
  await page
    .getByRole("button", { name: /Comes off/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Where could it be pulled?" }).click();
  const globe = page.getByTestId("range-1").getByRole("img");
  await expect(globe).toHaveAccessibleName(/^Free along [1-9]\d* of \d+ pulls$/);
  await expect(globe.locator("circle[class*=fill-success]").first()).toBeVisible();

  await test.step("what would save fill is told, and taken", async () => {
    await page.getByRole("button", { name: "Take the lines in hand" }).click();
    await course.settled();
    const fill = page.getByTestId("fills");
    await expect(fill).toHaveCount(0);
    // Straight up, the cap is in the way, and all under it is filled.
    await page.getByLabel("Elevation").fill("90");
    await course.settled();
    // What was found for the sections as they were cut before no longer holds.
    await expect(page.getByTestId("range-1")).toHaveCount(0);
    await expect(fill).toHaveCount(1);
    const filled = (await fill.textContent()) ?? "";
    await page.getByRole("button", { name: "What would save fill?" }).click();
    await page.getByRole("button", { name: /Turn its pull/ }).click();
    await course.settled();
    await expect(page.getByTestId("verdict")).toContainText("sections come off");
    // Less of it, or none at all.
    await expect.poll(async () => (await fill.allTextContents()).includes(filled)).toBe(false);
    await page.getByRole("button", { name: "Undo" }).click();
    await course.settled();
    await expect(fill).toHaveText(filled);
  });

  await page.getByRole("button", { name: "Left open" }).click();
  await expect(page.getByTestId("verdict")).toContainText("held");
  await course.settled();
  await expect(page.getByText(/Section \d is held/).first()).toBeVisible();
  await page.getByRole("button", { name: /^Held at: .* up$/ }).click();
  await page.getByRole("button", { name: "Take apart" }).click();
  await expect(page.getByText(/meets the jacket here and cannot move on/)).toBeVisible();
});

test("without 3-D the page says so, and the figures still come", async ({ baseURL }) => {
  const plain = await chromium.launch({
    executablePath: CHROMIUM,
    args: [
      ...CHROMIUM_FLAGS.filter((flag) => !/angle|swiftshader/.test(flag)),
      "--disable-gpu",
      "--disable-software-rasterizer",
    ],
  });
  const page = await plain.newPage({ ...(baseURL ? { baseURL } : {}) });
  const course = new CoursePage(page);
  await course.dropScan("bollard-plain.stl", writeStl(bollard));
  await expect(page.getByText("This browser shows no 3-D")).toBeVisible();
  await course.settled();
  await expect(course.tally("Silicone")).toContainText("g");
  await plain.close();
});
