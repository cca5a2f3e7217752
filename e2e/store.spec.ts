import { writeFile } from "node:fs/promises";
import { expect, test } from "@playwright/test";
import { writeStl } from "../core/export/stl.ts";
import { capsule, moved } from "../core/testing/shapes.ts";
import { CoursePage } from "./pages/course.ts";

const bollard = moved(capsule(90, 240, 24), 0, 0, 210);

test("from a new store to a buying list with its own materials, prices and remedies, which outlives the store", async ({
  page,
}, info) => {
  const course = new CoursePage(page);
  // What is on the shelves comes as a list; what is wrong in it is told by its line, and the rest taken in.
  await page.goto("/store");
  const list = info.outputPath("stock.csv");
  await writeFile(list, "material,amount,place\ncasting-plaster,500,Yard\nmoonstone,1,\n");
  await page.getByLabel("Take a list in").setInputFiles(list);
  await expect(page.getByTestId("stock-preview")).toContainText('Line 3: There is no material "moonstone"');
  await page.getByRole("button", { name: "Take them in" }).click();
  await expect(page.getByLabel("Amount of Casting plaster, soft")).toHaveValue("500");
  // A silicone of the workshop's own, begun like another, with its data sheet.
  await page.getByRole("tab", { name: "Catalogue" }).click();
  const form = page.getByRole("form", { name: "Add a material of your own" });
  await form.getByLabel("Name").fill("Barrel silicone");
  await form.getByLabel("Begin with the figures of").selectOption({ label: "Tin silicone, brushable, 100 to 5" });
  await form.getByLabel("Mixed of").fill("100 base, 4 catalyst");
  await form.getByLabel("Packs").fill("1 at 40; 25 at 500");
  await form.getByRole("button", { name: "Add it" }).click();
  await page.getByRole("button", { name: /^Barrel silicone/ }).click();
  const sheet = info.outputPath("barrel.pdf");
  await writeFile(sheet, "%PDF-1.4\n% made for the test\n");
  await page.getByLabel("Keep a file with it").setInputFiles(sheet);
  const taken = page.waitForEvent("download");
  await page.getByRole("link", { name: "barrel.pdf" }).click();
  expect((await taken).suggestedFilename()).toBe("barrel.pdf");
  // The plan takes it, tells what it costs by its own price, and takes the plaster from the store.
  await course.dropScan("bollard.stl", writeStl(bollard));
  await course.settled();
  await course.goTo("Materials");
  await page.getByLabel("Silicone", { exact: true }).selectOption({ label: "Barrel silicone" });
  await page.getByRole("tab", { name: "Buying" }).click();
  const row = (name: string) => page.getByRole("row").filter({ hasText: name });
  await expect(row("Barrel silicone")).toContainText("× 1.00 kg");
  await expect(row("Casting plaster, soft").getByRole("cell").nth(4)).toHaveText("");
  // What must not touch is met, and its remedy is on the list.
  await expect(row("Paste wax")).toHaveCount(0);
  await page.getByRole("tab", { name: "Cautions" }).click();
  await page
    .getByRole("listitem")
    .filter({ hasText: "(paste wax)" })
    .first()
    .getByRole("button", { name: "See to it, and put it on the list" })
    .click();
  await page.getByRole("tab", { name: "Buying" }).click();
  await expect(row("Paste wax")).toHaveCount(1);
  // A section in another shell, and its layers in another order.
  await page.getByRole("tab", { name: "Build-up" }).click();
  await page.getByRole("button", { name: "Section 2" }).click();
  await page.getByLabel(/^Polyester and glass mat/).check();
  await page.getByRole("button", { name: "Lay gel coat later" }).click();
  await expect(page.getByText(/^Gel coat is laid after another layer/)).toBeVisible();
  await page.getByRole("button", { name: "The usual order" }).click();
  await page.getByRole("tab", { name: "Buying" }).click();
  await expect(row("Peroxide hardener")).toHaveCount(1);
  await course.settled();
  // On paper, with a place to sign.
  await page.emulateMedia({ media: "print" });
  const paper = page.getByTestId("buying-list");
  await expect(paper).toBeVisible();
  await expect(paper).toContainText("Barrel silicone");
  await expect(paper).toContainText("plaster and jute, polyester and glass mat");
  await expect(paper.getByText("Checked by")).toBeVisible();
  await page.emulateMedia({ media: "screen" });
  await course.saved();
  const address = page.url();
  // The store forgets the material; the plan still knows what it is of.
  await page.goto("/store");
  await page.getByRole("tab", { name: "Catalogue" }).click();
  await page.getByRole("button", { name: /^Barrel silicone/ }).click();
  await page.getByRole("button", { name: "Take Barrel silicone out of the catalogue" }).click();
  await expect(page.getByRole("button", { name: /^Barrel silicone/ })).toHaveCount(0);
  await page.goto(address);
  await course.settled();
  await page.getByRole("tab", { name: "Pots" }).click();
  await expect(row("Barrel silicone").first()).toBeVisible();
});
