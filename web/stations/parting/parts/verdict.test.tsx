// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, beforeAll, describe, expect, it, vi } from "vitest";
import { newPlan } from "../../../../core/plan/document/document.ts";
import type { StandingProof } from "../../../../core/plan/proof/standing.ts";
import type { PlanFigures } from "../../../../core/plan/results/figures.ts";
import { figuresOfABall } from "../../../testing/figures.ts";
import { Verdict } from "./Verdict.tsx";

vi.mock("../../../scene/useStage.tsx", () => ({ useStage: () => ({ stage: null, listen: () => () => {} }) }));

let figures: PlanFigures;
beforeAll(async () => {
  figures = await figuresOfABall();
});
afterEach(cleanup);

function verdictOf(own: PlanFigures, settled = true, standing: StandingProof | null = null): string {
  render(
    <Verdict
      {...{ document: newPlan(), figures: own, shown: own, settled, standing }}
      where={() => "up there"}
      onMove={() => {}}
      onRaise={() => {}}
    />,
  );
  return screen.getByTestId("verdict").textContent?.trim() ?? "";
}

describe("the verdict", () => {
  it("is yes only when it is proven", () => {
    expect(verdictOf(figures)).toBe("Yes: all 2 sections come off.");
    cleanup();
    expect(verdictOf(figures, false)).toBe("At first glance it comes off. The check is under way.");
  });

  it("of lines that were moved is what was proven first, until all is settled", () => {
    const { sections } = figures.report;
    const free = { biteMm: 0.4, biteAt: null, releases: true };
    const held = { biteMm: 6.1, biteAt: [1, 2, 3], releases: false } as const;
    const proof = (first: StandingProof["sections"][0]): StandingProof => ({ sections: [first, free], circle: [] });
    expect(verdictOf(figures, false, proof(free))).toContain("It comes off past the fills as they are.");
    cleanup();
    const { number } = sections.find(({ origin }) => origin === 0) ?? sections[0];
    expect(verdictOf(figures, false, proof(held))).toMatch(
      new RegExp(`Section ${number} presses 6.1\\smm into the rubber \\(up there\\)`),
    );
    cleanup();
    expect(verdictOf(figures, false, { ...proof(free), circle: [0, 1] })).toBe("Sections 1 and 2 block each other.");
    cleanup();
    expect(verdictOf(figures, true, proof(held))).toBe("Yes: all 2 sections come off.");
  });

  it("counts what is held", () => {
    const { report } = figures;
    const [first, second] = report.sections;
    const held = { ...figures, report: { ...report, sections: [{ ...first, releases: false }, second] } };
    expect(verdictOf(held)).toBe("1 of 2 sections is held.");
  });

  it("is no plain yes where a line crosses another, and the caution beside it says so", () => {
    const text = "Section 2 has fallen into 2 pieces: a line crosses another.";
    const astray: PlanFigures = { ...figures, warnings: [...figures.warnings, { kind: "lines", text }] };
    expect(verdictOf(astray)).toBe("It comes off, but not parted as you drew it.");
    expect(screen.getByText(text)).toBeDefined();
  });
});
