import { describe, expect, it } from "vitest";
import { plainContext } from "../../job/context.ts";
import { THOROUGH } from "../../parting/search/request.ts";
import { TYPICAL_RATES } from "../../takeoff/rates.ts";
import { CHANGES, LAID_PLAN, PLAN } from "../../testing/documentChanges.ts";
import { moved, sphere } from "../../testing/shapes.ts";
import type { PlanDocument } from "../document/document.ts";
import { searchRatesOf } from "../document/searchRates.ts";
import type { Terms } from "./stage.ts";
import { bytesOf, Stages } from "./stages.ts";
import { STAGE_NAMES, type StageName, shareOfPlan, stageKey } from "./table.ts";

const terms: Terms = { rates: TYPICAL_RATES, stepMm: 8, effort: THOROUGH };
const seen = PLAN;
const laid = LAID_PLAN;

/** The stages whose keys differ between two documents. */
function rerun(before: PlanDocument, after: PlanDocument, later = terms): StageName[] {
  return STAGE_NAMES.filter((name) => stageKey(name, before, terms) !== stageKey(name, after, later));
}

const ALL = STAGE_NAMES;
const FROM_JACKET: StageName[] = ["jacket", "survey", "parting", "zones", "walls", "cavity", "ways", "ribs"];
const FROM_SURVEY: StageName[] = ["survey", "parting", "zones", "walls", "cavity", "ribs"];
const FROM_SECTIONS: StageName[] = ["parting", "zones", "walls", "cavity", "ribs"];
const NONE: StageName[] = [];

/** The stages that must run again after each field of the document has changed; those of all others are none. */
const AFTER: readonly (readonly [StageName[], readonly string[]])[] = [
  [ALL, ["seat.unit", "seat.tapeScale", "seat.up", "seat.turnDeg", "seat.onBoard"]],
  [
    FROM_SECTIONS,
    [
      "brief.edition",
      "brief.liftLimitKg",
      "brief.handlingMm",
      "brief.immovable",
      "parting.sections",
      "parting.pulls",
      "parting.giveMm",
      "parting.mostSiliconeMm",
      "parting.leastSectionMm2",
      "parting.fills",
      "parting.layout",
      "shell.system",
      "shell.figures",
      "shell.sections",
    ],
  ],
  [FROM_SURVEY, ["survey.draftDeg", "zones.keepClear"]],
  [
    FROM_JACKET,
    ["jacket.coats", "jacket.smoothingMm", "jacket.rimWidthMm", "jacket.footClayMm", "jacket.stops", "zones.thicker"],
  ],
  [["zones"], ["zones.fragile"]],
  [["ribs"], ["shell.ribs"]],
  // How far flanges reach is what others must pass.
  [["walls"], ["shell.flanges"]],
];
const stagesAfter = (name: string): StageName[] => AFTER.find(([, names]) => names.includes(name))?.[0] ?? NONE;

const { jacket, parting, brief } = seen;

describe("the stages that run again", () => {
  const every = Object.entries(CHANGES).flatMap(([part, fields]) =>
    Object.entries(fields).map(([field, change]) => {
      const name = `${part}.${field}`;
      return { name, change, stages: stagesAfter(name) };
    }),
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
    const dearer: Terms = { ...terms, rates: { ...TYPICAL_RATES, hourMinor: 9900, packs: { "jute-scrim": [] } } };
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
