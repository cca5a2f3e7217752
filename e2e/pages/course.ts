import { writeFile } from "node:fs/promises";
import { expect, type Page, test } from "@playwright/test";

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

  /** On a shelf that is open. From a file, as a person does: bytes given to the page by hand would hold it up. */
  async drop(name: string, bytes: Uint8Array): Promise<void> {
    const path = test.info().outputPath(name);
    await writeFile(path, bytes);
    await this.page.locator("input[type=file]").first().setInputFiles(path);
  }

  async settled(): Promise<void> {
    const tally = this.page.getByTestId("tally");
    await expect(tally).toHaveAttribute("data-quality", "settled", { timeout: 240_000 });
    // Bolts and keys are counted a moment later, and cost.
    await expect(tally).toHaveAttribute("data-counted", "true");
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

  /** Families on the page that did not come with it: another machine would show something else. */
  async foreignFonts(): Promise<string[]> {
    const session = await this.page.context().newCDPSession(this.page);
    await session.send("DOM.enable");
    await session.send("CSS.enable");
    const { nodes } = await session.send("DOM.getFlattenedDocument", { depth: -1 });
    const foreign = new Set<string>();
    for (const { nodeId, nodeType } of nodes) {
      if (nodeType !== 1) continue;
      const { fonts } = await session.send("CSS.getPlatformFontsForNode", { nodeId });
      for (const font of fonts) if (!font.isCustomFont) foreign.add(font.familyName);
    }
    await session.detach();
    return [...foreign];
  }

  /** Watches how long a press would wait for the page, on every page opened from now on. */
  async watchHolds(): Promise<void> {
    await this.page.addInitScript((leastMs) => {
      // The same on the page and on an idle thread beside it, which only the machine can hold up.
      function watch(): [number, number][] {
        const gaps: [number, number][] = [];
        let last = performance.timeOrigin + performance.now();
        const beat = () => {
          const now = performance.timeOrigin + performance.now();
          if (now - last > leastMs) gaps.push([last, now]);
          last = now;
          // As urgent as a press: before all that only waits its turn, after what has begun.
          void scheduler.postTask(beat, { priority: "user-blocking", delay: 5 });
        };
        beat();
        return gaps;
      }
      const script = `const leastMs = ${leastMs}; const gaps = (${watch})(); onmessage = () => postMessage(gaps);`;
      const idle = new Worker(URL.createObjectURL(new Blob([script], { type: "text/javascript" })));
      Object.assign(window, { watched: { idle, gaps: watch() } });
    }, LEAST_GAP_MS);
  }

  /** Forgets what held up the page while it was opened. */
  async holdsFromNow(): Promise<void> {
    await this.page.evaluate(() => {
      (window as unknown as { watched: { gaps: unknown[] } }).watched.gaps.length = 0;
    });
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
