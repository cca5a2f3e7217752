import { expect, test } from "@playwright/test";
import { writeStl } from "../core/export/stl.ts";
import { moved, torus, turned } from "../core/testing/shapes.ts";
import { CoursePage } from "./pages/course.ts";
import { StagePage } from "./pages/stage.ts";

test("a ring on the board: its hole is decided, a zone painted, the jacket given a seam", async ({ page }) => {
  const course = new CoursePage(page);
  const ring = moved(turned(torus(60, 16, 64, 24), [1, 0, 0, 0, 0, -1, 0, 1, 0]), 0, 0, 76);
  await course.dropScan("ring.stl", writeStl(ring));
  await course.settled();

  await test.step("the through-hole is found, flown to, decided and brought back", async () => {
    await course.goTo("Survey");
    const list = page.getByTestId("decisions");
    const hole = list.getByRole("button", { name: /Through-hole/ });
    await expect(hole).toHaveCount(1);
    await hole.click();
    await page.getByLabel("What was decided").fill("clay in the hole");
    await page.getByRole("button", { name: "Done" }).click();
    await expect(hole).toHaveCount(0);
    await page.getByText("1 decided").click();
    await expect(page.getByText("Through-hole: clay in the hole")).toBeVisible();
    await page.getByRole("button", { name: "Bring back" }).click();
    await expect(hole).toHaveCount(1);
  });

  await test.step("a zone is painted in one stroke, and one undo takes it back", async () => {
    await page.getByRole("button", { name: "Zones", exact: true }).click();
    const stage = await StagePage.lookedAtFrom(page, ring, "front");
    const clear = page.getByTestId("zones").getByRole("button", { name: "Clear it" });
    // Along the crown of the ring, on its front.
    await stage.drag(stage.spot([-8, -16, 136]), stage.spot([8, -16, 136]));
    await expect(clear).toHaveCount(1);
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(clear).toHaveCount(0);
    await page.getByRole("button", { name: "Redo" }).click();
    await expect(clear).toHaveCount(1);
  });

  await test.step("the jacket is parted in two: hands and cost follow at once", async () => {
    await course.goTo("Jacket");
    await course.settled();
    const cost = await course.tally("Cost").textContent();
    await page.getByRole("button", { name: "Two parts" }).click();
    await expect(page.getByTestId("seam")).toBeVisible();
    await expect(page.getByText(/hang together through a hole/)).toBeVisible();
    await expect(course.tally("Cost")).not.toHaveText(cost ?? "");
    await page.getByRole("button", { name: "None: a sock" }).click();
    await expect(course.tally("Cost")).toHaveText(cost ?? "");
  });

  await test.step("the hole is closed with clay: it needs no decision any more, and the clay is bought", async () => {
    await course.goTo("Survey");
    const hole = page.getByTestId("decisions").getByRole("button", { name: /Through-hole/ });
    await hole.click();
    await page.getByRole("button", { name: "Close it with a web of clay" }).click();
    await expect(page.getByTestId("stops").getByRole("listitem")).toHaveCount(1);
    await course.settled();
    await expect(page.getByText("Looking at holes")).toHaveCount(0);
    await expect(hole).toHaveCount(0);
    await course.goTo("Materials");
    await page.getByTestId("middle").getByRole("button", { name: "Water clay" }).click();
    await expect(page.getByTestId("middle").getByText("for through-holes")).toBeVisible();
  });
});
