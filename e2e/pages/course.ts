import { expect, type Page } from "@playwright/test";

/** What `slowness` takes on a plain, idle machine, ms. */
const PLAIN_MS = 260;

/** Shorter gaps between two beats are no hold. */
const LEAST_GAP_MS = 20;

/** The open piece, as a person finds their way round it. */
export class CoursePage {
  constructor(readonly page: Page) {}

  async dropScan(name: string, bytes: Uint8Array): Promise<void> {
    await this.page.goto("/");
    await this.drop(name, bytes);
  }

  /** On a shelf that is open. */
  async drop(name: string, bytes: Uint8Array): Promise<void> {
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
    await expect(this.page.getByTestId("tally")).toHaveAttribute("data-quality", "settled", { timeout: 240_000 });
  }

  /** How finely plans are settled from now on, as it is set on the settings page. */
  async settleBy(fineness: "quick" | "usual"): Promise<void> {
    await this.page.goto("/settings");
    await this.page.getByLabel("Plans are worked out").selectOption(fineness);
    await this.page.getByRole("button", { name: "Save" }).click();
    await expect(this.page.getByRole("status")).toHaveText("Saved");
  }

  /** How many times slower the page's thread is than on a plain, idle machine; at least 1. */
  async slowness(): Promise<number> {
    const ms = await this.page.evaluate(() => {
      const numbers = new Float64Array(1 << 20);
      const started = performance.now();
      for (let round = 0; round < 12; round++)
        for (let k = 0; k < numbers.length; k++) numbers[k] = 0.9 * numbers[k] + numbers[(k * 7919) & 1048575] + k;
      return performance.now() - started;
    });
    return Math.max(1, ms / PLAIN_MS);
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

  /** Begins to watch how long the page is held up. */
  async watchHolds(): Promise<void> {
    await this.page.evaluate((leastMs) => {
      // The same on the page and on an idle thread beside it, which only the machine can hold up.
      const beats = `
        const gaps = [];
        let last = performance.timeOrigin + performance.now();
        const beat = () => {
          const now = performance.timeOrigin + performance.now();
          if (now - last > ${leastMs}) gaps.push([last, now]);
          last = now;
          setTimeout(beat, 5);
        };
        beat();`;
      const idle = new Worker(
        URL.createObjectURL(new Blob([`${beats} onmessage = () => postMessage(gaps);`], { type: "text/javascript" })),
      );
      const gaps: [number, number][] = [];
      let last = performance.timeOrigin + performance.now();
      const beat = () => {
        const now = performance.timeOrigin + performance.now();
        if (now - last > leastMs) gaps.push([last, now]);
        last = now;
        setTimeout(beat, 5);
      };
      beat();
      Object.assign(window, { watched: { idle, gaps } });
    }, LEAST_GAP_MS);
  }

  /**
   * The longest the page was held up since it is watched, ms: by itself, not counting what held up an idle thread beside
   * it at the same time; and by the clock.
   */
  async longestHold(): Promise<{ ownMs: number; clockMs: number }> {
    return this.page.evaluate(async () => {
      const { idle, gaps } = (window as unknown as { watched: { idle: Worker; gaps: [number, number][] } }).watched;
      const others = await new Promise<[number, number][]>((resolve) => {
        idle.onmessage = ({ data }) => resolve(data);
        idle.postMessage(null);
      });
      const own = gaps.map(
        ([from, to]) =>
          to - from - others.reduce((sum, [a, b]) => sum + Math.max(0, Math.min(to, b) - Math.max(from, a)), 0),
      );
      return { ownMs: Math.max(0, ...own), clockMs: Math.max(0, ...gaps.map(([from, to]) => to - from)) };
    });
  }
}
