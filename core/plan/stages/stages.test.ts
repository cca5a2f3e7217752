import { describe, expect, it } from "vitest";
import { plainContext } from "../../job/context.ts";
import { THOROUGH } from "../../parting/request.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { moved, sphere } from "../../testing/shapes.ts";
import { newPlan, type PlanDocument } from "../document/document.ts";
import { searchRatesOf } from "../document/searchRates.ts";
import type { Terms } from "./stage.ts";
import { bytesOf, Stages } from "./stages.ts";
import { STAGE_NAMES, type StageName, shareOfPlan, stageKey } from "./table.ts";

const terms: Terms = { rates: TYPICAL_RATES, stepMm: 8, effort: THOROUGH };
const seen = newPlan();
const laid: PlanDocument = {
  ...seen,
  parting: {
    ...seen.parting,
    layout: {
      sections: [{ pull: [0, -1, 0] }, { pull: [0, 1, 0] }],
      lines: [{ points: [0, 0, 0, 9, 0, 0, 9, 9, 0], handles: [0, 1, 2], closed: true, left: 0, right: 1 }],
    },
  },
};

/** The stages whose keys differ between two documents. */
function rerun(before: PlanDocument, after: PlanDocument, later = terms): StageName[] {
  return STAGE_NAMES.filter((name) => stageKey(name, before, terms) !== stageKey(name, after, later));
}

const ALL = STAGE_NAMES;
const FROM_JACKET: StageName[] = ["jacket", "survey", "sections", "zones"];
const FROM_SURVEY: StageName[] = ["survey", "sections", "zones"];
const FROM_SECTIONS: StageName[] = ["sections", "zones"];
const NONE: StageName[] = [];
const dab = [1, 2, 3, 0, 0, 1, 20];

type Changes = {
  readonly [K in keyof PlanDocument]: Readonly<Record<string, readonly [Partial<PlanDocument>, StageName[]]>>;
};

const { seat, brief, survey, jacket, parting, zones, identity, shell } = seen;
/** Every field of the document, changed, and the stages that must run again. */
const CHANGES: Omit<Changes, "version"> = {
  seat: {
    unit: [{ seat: { ...seat, unit: "cm" } }, ALL],
    tapeScale: [{ seat: { ...seat, tapeScale: 1.01 } }, ALL],
    up: [{ seat: { ...seat, up: "y" } }, ALL],
    turnDeg: [{ seat: { ...seat, turnDeg: 5 } }, ALL],
    onBoard: [{ seat: { ...seat, onBoard: false } }, ALL],
  },
  brief: {
    edition: [{ brief: { ...brief, edition: 9 } }, FROM_SECTIONS],
    castMaterial: [{ brief: { ...brief, castMaterial: "wax" } }, NONE],
    castMethod: [{ brief: { ...brief, castMethod: "solid" } }, NONE],
    surface: [{ brief: { ...brief, surface: "oak" } }, NONE],
    liftLimitKg: [{ brief: { ...brief, liftLimitKg: 30 } }, FROM_SECTIONS],
    handlingMm: [{ brief: { ...brief, handlingMm: 900 } }, FROM_SECTIONS],
    immovable: [{ brief: { ...brief, immovable: true } }, FROM_SECTIONS],
  },
  survey: {
    pull: [{ survey: { ...survey, pull: [1, 0, 0] } }, NONE],
    draftDeg: [{ survey: { ...survey, draftDeg: 2 } }, FROM_SURVEY],
    dismissed: [{ survey: { ...survey, dismissed: [{ id: "gap 1 2 3", reason: "" }] } }, NONE],
  },
  jacket: {
    coats: [{ jacket: { ...jacket, coats: jacket.coats.slice(1) } }, FROM_JACKET],
    smoothingMm: [{ jacket: { ...jacket, smoothingMm: 12 } }, FROM_JACKET],
    rimWidthMm: [{ jacket: { ...jacket, rimWidthMm: 80 } }, FROM_JACKET],
    // How much thicker zones are matters where there are any.
    thickerMm: [{ jacket: { ...jacket, thickerMm: 6 } }, NONE],
    seam: [{ jacket: { ...jacket, seam: { kind: "slit", school: "cut", points: [0, 0, 0, 0, 0, 9] } } }, NONE],
    footClayMm: [{ jacket: { ...jacket, footClayMm: 0 } }, FROM_JACKET],
    stops: [{ jacket: { ...jacket, stops: [{ loop: [0, 0, 0, 9, 0, 0, 9, 9, 0] }] } }, FROM_JACKET],
  },
  parting: {
    sections: [{ parting: { ...parting, sections: 3 } }, FROM_SECTIONS],
    pulls: [{ parting: { ...parting, pulls: [[0, 0, 1]] } }, FROM_SECTIONS],
    // The same rates as the workshop's: nothing else is suggested.
    suggestedAt: [{ parting: { ...parting, suggestedAt: searchRatesOf(TYPICAL_RATES) } }, NONE],
    giveMm: [{ parting: { ...parting, giveMm: 0.9 } }, FROM_SECTIONS],
    mostSiliconeMm: [{ parting: { ...parting, mostSiliconeMm: 9 } }, FROM_SECTIONS],
    leastSectionMm2: [{ parting: { ...parting, leastSectionMm2: 0 } }, FROM_SECTIONS],
    fills: [{ parting: { ...parting, fills: [{ at: [1, 2, 3], kind: "plug" }] } }, FROM_SECTIONS],
    layout: [{ parting: laid.parting }, FROM_SECTIONS],
  },
  zones: {
    keepClear: [{ zones: { ...zones, keepClear: dab } }, FROM_SURVEY],
    fragile: [{ zones: { ...zones, fragile: dab } }, ["zones"]],
    thicker: [{ zones: { ...zones, thicker: dab } }, FROM_JACKET],
  },
  identity: {
    next: [{ identity: { ...identity, next: 99 } }, NONE],
    sections: [{ identity: { ...identity, sections: [{ id: "section-9", places: [1, 2, 3] }] } }, NONE],
    lines: [{ identity: { ...identity, lines: [{ id: "line-9", between: ["a", "b"], places: [1, 2, 3] }] } }, NONE],
    fills: [{ identity: { ...identity, fills: [{ id: "fill-9", at: [1, 2, 3] }] } }, NONE],
  },
  shell: {
    system: [{ shell: { ...shell, system: "polyester-mat" } }, FROM_SECTIONS],
    figures: [{ shell: { ...shell, figures: { thicknessMm: 30 } } }, FROM_SECTIONS],
  },
};

describe("the stages that run again", () => {
  const every = Object.entries(CHANGES).flatMap(([part, fields]) =>
    Object.entries(fields).map(([field, [change, stages]]) => ({ name: `${part}.${field}`, change, stages })),
  );

  it("are known for every field of the document", () => {
    const { version: _version, ...parts } = seen;
    const fields = Object.entries(parts).flatMap(([part, of]) => Object.keys(of).map((field) => `${part}.${field}`));
    expect(every.map(({ name }) => name).sort()).toEqual(fields.sort());
  });

  it.each(every)("after $name: $stages", ({ change, stages }) => {
    expect(rerun(seen, { ...seen, ...change })).toEqual(stages);
  });

  it("are none for another pigment", () => {
    const coats = jacket.coats.map((coat) => ({ ...coat, pigment: "#000000" }));
    expect(rerun(seen, { ...seen, jacket: { ...jacket, coats } })).toEqual(NONE);
  });

  it("are none for any price once lines were suggested, and none for lines laid by hand", () => {
    const dearer: Terms = { ...terms, rates: { ...TYPICAL_RATES, hourMinor: 9900, shellPerKgMinor: 1 } };
    const noted = { ...seen, parting: { ...parting, suggestedAt: searchRatesOf(TYPICAL_RATES) } };
    expect(rerun(noted, noted, dearer)).toEqual(NONE);
    expect(rerun(laid, laid, dearer)).toEqual(NONE);
    expect(rerun(seen, seen, dearer)).toEqual(FROM_SECTIONS);
    const { edition, ...others } = brief;
    const manyCasts = { ...laid, brief: { ...others, edition: edition + 40 } };
    expect(rerun(laid, manyCasts)).toEqual(NONE);
  });
});

describe("results of stages", () => {
  const ball = moved(sphere(80, 24), 0, 0, 70);

  it("are kept for an edit that is taken back, and let go of where there is no room", () => {
    const thick = { ...seen, jacket: { ...jacket, smoothingMm: 10 } };
    const roomy = new Stages({ scan: ball });
    const first = roomy.get("jacket", seen, terms, plainContext);
    roomy.get("jacket", thick, terms, plainContext);
    expect(roomy.known("jacket", seen, terms)).toBe(first);
    expect(roomy.get("jacket", seen, terms, plainContext)).toBe(first);

    const narrow = new Stages({ scan: ball }, 0);
    narrow.get("jacket", seen, terms, plainContext);
    const last = narrow.get("jacket", thick, terms, plainContext);
    expect(narrow.known("jacket", seen, terms)).toBeNull();
    expect(narrow.known("jacket", thick, terms)).toBe(last);
    expect(narrow.known("piece", seen, terms)).not.toBeNull();
  });

  it("are counted by the arrays they hold, each once", () => {
    const array = new Float64Array(100);
    expect(bytesOf({ a: array, again: [array, { array }], other: array.subarray(3), text: "x".repeat(99) })).toBe(800);
    expect(bytesOf(new Map([["k", new Uint8Array(7)]]))).toBe(7);
  });
});

describe("the share of a plan that is done", () => {
  it("goes on from stage to stage, and ends with the last", () => {
    const told = ["repair", "field", "jacket", "survey", "parting"].flatMap((what) =>
      [0, 0.5, 1].map((fraction) => shareOfPlan(what, fraction)),
    );
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect(told[0]).toBe(0);
    expect(told.at(-1)).toBeCloseTo(1, 9);
  });
});
