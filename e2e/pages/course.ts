import { writeFile } from "node:fs/promises";
import { type Browser, expect, type Page, test } from "@playwright/test";
import { z } from "zod";

/** What `slowness` takes on a plain, idle machine, ms. */
const PLAIN_MS = 260;

/** One event of a trace the browser keeps, as far as it is read here; `dur` and `tdur`, us, by the clock and worked. */
const TraceEvent = z.object({
  name: z.string(),
  pid: z.number(),
  tid: z.number(),
  dur: z.number().optional(),
  tdur: z.number().optional(),
  args: z.object({ name: z.string().optional() }).optional(),
});

function threadOf({ pid, tid }: z.infer<typeof TraceEvent>): string {
  return `${pid}/${tid}`;
}

function browserOf(page: Page): Browser {
  const browser = page.context().browser();
  if (browser === null) throw new Error("This page's browser is not ours to trace.");
  return browser;
}

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

  /** From now on, how long a press may have to wait for the page is noted. */
  async watchHolds(): Promise<void> {
    await browserOf(this.page).startTracing(this.page, { categories: ["toplevel", "__metadata"] });
  }

  /**
   * The longest task of the page's own thread since `watchHolds`, which is what a press may have to wait for, ms: the time
   * it was worked on, which other threads on the same cores do not lengthen; and by the clock.
   */
  async longestHold(): Promise<{ workedMs: number; clockMs: number }> {
    const trace = z.object({ traceEvents: z.array(TraceEvent) });
    const text = (await browserOf(this.page).stopTracing()).toString();
    const events = trace.parse(JSON.parse(text)).traceEvents;
    const pageThreads = new Set(
      events.filter((event) => event.name === "thread_name" && event.args?.name === "CrRendererMain").map(threadOf),
    );
    const tasks = events.filter((event) => event.name.endsWith("RunTask") && pageThreads.has(threadOf(event)));
    const longestMs = (kind: "dur" | "tdur") => Math.max(...tasks.map((task) => task[kind] ?? 0)) / 1000;
    const workedMs = longestMs("tdur");
    expect(workedMs, "the browser tells how long its tasks were worked on").toBeGreaterThan(0);
    return { workedMs, clockMs: longestMs("dur") };
  }
}
