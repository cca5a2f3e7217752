import { expect, type Page } from "@playwright/test";

/** The open piece, as a person finds their way round it. */
export class CoursePage {
  constructor(readonly page: Page) {}

  async dropScan(name: string, bytes: Uint8Array): Promise<void> {
    await this.page.goto("/");
    await this.page
      .getByText("Add a scan")
      .setInputFiles({ name, mimeType: "application/octet-stream", buffer: Buffer.from(bytes) })
      .catch(async () => {
        await this.page
          .locator("input[type=file]")
          .setInputFiles({ name, mimeType: "application/octet-stream", buffer: Buffer.from(bytes) });
      });
  }

  async settled(): Promise<void> {
    await expect(this.page.getByTestId("tally")).toHaveAttribute("data-quality", "settled", { timeout: 100_000 });
  }

  /** The stage has answered what was done on it, and shows it. */
  async drawn(): Promise<void> {
    await expect(this.page.locator("[data-testid=stage][data-drawing]")).toHaveCount(0);
  }

  async goTo(station: string): Promise<void> {
    await this.page
      .getByRole("navigation", { name: "Course" })
      .getByRole("link", { name: new RegExp(station) })
      .click();
  }

  tally(name: string) {
    return this.page.getByTestId(`tally-${name}`);
  }

  async saved(): Promise<void> {
    await expect(this.page.getByTestId("save-state")).toHaveText("Saved");
  }
}
