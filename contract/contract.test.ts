import { describe, expect, it } from "vitest";
import { plainContext } from "../core/job/context.ts";
import { ALONE } from "../core/job/team.ts";
import { ownPacks, storedEntries } from "../core/materials/stock.ts";
import { lathe } from "../core/mesh/lathe.ts";
import { withLayup, withMaterial, withSilicone } from "../core/plan/document/choose.ts";
import { newPlan, type PlanDocument } from "../core/plan/document/document.ts";
import { searchRatesOf } from "../core/plan/document/searchRates.ts";
import { PlanEngine } from "../core/plan/engine.ts";
import { bundleOf } from "../core/plan/results/bundle.ts";
import { figuresOf } from "../core/plan/results/figures.ts";
import { NO_ZONES } from "../core/survey/zones.ts";
import { TYPICAL_RATES } from "../core/takeoff/rates.ts";
import { OWN_SILICONE } from "../core/testing/documentChanges.ts";
import { apiError, errorCodes } from "./error.ts";
import { bundleFigures, planFigures } from "./figures.ts";
import { changePiece, createPiece, savePlan } from "./pieces.ts";
import { planDocument } from "./plan.ts";
import { upgradePlan } from "./planUpgrades.ts";
import { resultKey } from "./scans.ts";
import { DEFAULT_SETTINGS, settings } from "./settings.ts";
import { store } from "./store.ts";

/** A fresh plan with one place changed to something wrong. */
function spoiled(change: (plan: Record<string, Record<string, unknown>>) => void): unknown {
  const plan = JSON.parse(JSON.stringify(newPlan())) as Record<string, Record<string, unknown>>;
  change(plan);
  return plan;
}

describe("the plan document", () => {
  it("survives the wire unchanged", () => {
    const plan: PlanDocument = {
      ...newPlan({ unit: "in", up: "-y" }),
      parting: {
        sections: 3,
        pulls: [
          [0.6, 0, 0.8],
          [0, -1, 0],
        ],
        suggestedAt: searchRatesOf(TYPICAL_RATES),
        giveMm: 2,
        mostSiliconeMm: 12,
        leastSectionMm2: 30_000,
        fills: [{ at: [1, 2, 3], kind: "plug" }],
        layout: {
          sections: [{ pull: [0, 0, 1] }, { pull: [0, 0, -1] }],
          lines: [{ points: [0, 0, 0, 9, 0, 0, 9, 9, 0], handles: [0, 1, 2], closed: true, left: 0, right: 1 }],
        },
      },
      zones: { ...NO_ZONES, keepClear: [1, 2, 3, 0, 0, 1, 30] },
    };
    expect(upgradePlan(JSON.parse(JSON.stringify(plan)))).toEqual(plan);
  });

  it("is read from what older versions stored", () => {
    const { zones: _zones, ...plan } = newPlan();
    const { layout: _layout, giveMm: _give, mostSiliconeMm: _most, ...parting } = plan.parting;
    const { footClayMm: _foot, ...fourth } = plan.jacket;
    const { stops: _stops, ...third } = fourth;
    const { thickerMm: _thicker, seam: _seam, ...jacket } = third;
    const { dismissed: _dismissed, ...survey } = plan.survey;
    const second = { ...plan, version: 2, parting: { ...parting, fillDepthMm: 33 }, jacket, survey };
    const { immovable: _immovable, ...fifth } = plan.brief;
    const { handlingMm: _handling, ...brief } = fifth;
    const first = { ...second, version: 1, brief };
    const deep = { ...parting, layout: null, fillDepthMm: 33 };
    const before = { ...newPlan(), version: 3, brief: fifth, parting: deep, jacket: third };
    const last = { ...newPlan(), version: 4, brief: fifth, parting: deep, jacket: fourth };
    for (const stored of [first, second, before, last]) expect(upgradePlan(stored)).toEqual(newPlan());
  });

  it("of version 5 gets ids for its coats, and places for what was decided", () => {
    const { identity: _identity, ...plan } = newPlan();
    const { suggestedAt: _suggestedAt, ...parting } = plan.parting;
    const coats = plan.jacket.coats.slice(0, 2).map(({ id: _id, ...coat }) => coat);
    const dismissed = [{ id: "gap -1 2 30", reason: "clay" }];
    const stored = {
      ...plan,
      version: 5,
      parting,
      jacket: { ...plan.jacket, coats },
      survey: { ...plan.survey, dismissed },
    };
    const read = upgradePlan(stored);
    expect(read.jacket.coats.map(({ id }) => id)).toEqual(["coat-1", "coat-2"]);
    expect(read.identity.next).toBe(3);
    expect(read.survey.dismissed).toEqual([{ kind: "gap", at: [-40, 80, 1200], reason: "clay" }]);
    expect(read.parting.suggestedAt).toBeNull();
  });

  it("of version 6 gets typical flanges, and keeps its shell", () => {
    const { flanges, casting, jacketKeys, ribs, foot, ...shell } = newPlan().shell;
    const stored = { ...newPlan(), version: 6, shell: { ...shell, system: "polyester-mat", figures: { layers: 5 } } };
    expect(upgradePlan(stored).shell).toEqual({
      ...{ system: "polyester-mat", figures: { layers: 5 } },
      ...{ flanges, casting, jacketKeys, ribs },
      // A plan from before feet keeps none.
      foot: { ...foot, isFlanged: false },
      ...{ order: [], sections: [], variants: [] },
    });
  });

  it("of version 9 is of the jacket's own silicone, and laid up alike everywhere", () => {
    const { materials: _materials, ...plan } = newPlan();
    const { order: _order, sections: _sections, variants: _variants, ...shell } = plan.shell;
    const coats = plan.jacket.coats.map(({ silicone: _silicone, gauze: _gauze, ...coat }) => coat);
    const stored = { ...plan, version: 9, jacket: { ...plan.jacket, coats }, shell };
    expect(upgradePlan(stored)).toEqual(newPlan());
  });

  it("with materials of the workshop's own, and sections laid up otherwise, goes over the wire as it is", () => {
    const blue = withSilicone(newPlan(), null, OWN_SILICONE.id, OWN_SILICONE);
    const harder = withMaterial(blue, "casting-plaster", "white-hard-gypsum");
    const cap = { system: "epoxy-cloth", figures: { layers: 8 }, order: ["cloth-1", "gel"] };
    const plan = withLayup(harder, "section-7", cap, ["section-7"]);
    expect(planDocument.parse(JSON.parse(JSON.stringify(plan)))).toEqual(plan);
  });

  it("of version 8 keeps its shell without a foot, its keys by rule, and what a bolt is let bear", () => {
    const { foot: _foot, casting, jacketKeys, ...shell } = newPlan().shell;
    const wall = { id: "line-1", widthMm: 61, joint: "straps", bolts: null };
    const { strapLoadN: _strapLoadN, ...withoutStraps } = casting;
    const { placed: _placed, ...byRule } = jacketKeys;
    const stored = {
      ...newPlan(),
      version: 8,
      shell: {
        ...shell,
        flanges: { ...shell.flanges, walls: [wall] },
        casting: { ...withoutStraps, boltLoadN: 99 },
        jacketKeys: { ...byRule, spacingMm: 333 },
      },
    };
    const read = upgradePlan(stored).shell;
    expect(read.foot.isFlanged).toBe(false);
    expect(read.flanges.walls).toEqual([{ ...wall, keys: null }]);
    expect(read.casting).toEqual({ ...casting, boltLoadN: 99 });
    expect(read.jacketKeys).toEqual({ ...jacketKeys, spacingMm: 333 });
  });

  it.each([
    ["the usual one, goes by the shell from now on", 45, null],
    ["another, keeps it", 61, 61],
  ])("of version 10 whose flanges have a width, %s", (_name, before, after) => {
    const { shell } = newPlan();
    const stored = { ...newPlan(), version: 10, shell: { ...shell, flanges: { ...shell.flanges, widthMm: before } } };
    expect(upgradePlan(stored).shell.flanges.widthMm).toBe(after);
  });

  it("of version 7 gets poles where it spans too far, and keeps its flanges", () => {
    const { ribs, ...shell } = newPlan().shell;
    const stored = { ...newPlan(), version: 7, shell: { ...shell, flanges: { ...shell.flanges, widthMm: 61 } } };
    const read = upgradePlan(stored).shell;
    expect(read.ribs).toEqual(ribs);
    expect(read.flanges.widthMm).toBe(61);
  });

  it.each([
    [
      "a flange too narrow to hold anything",
      (p: { shell: { flanges: Record<string, unknown> } }) => {
        p.shell.flanges.widthMm = 4;
      },
      "shell.flanges.widthMm",
    ],
    [
      "an unknown version",
      (p: Record<string, unknown>) => {
        p.version = 99;
      },
      "version",
    ],
    [
      "a unit nobody uses",
      (p: { seat: Record<string, unknown> }) => {
        p.seat.unit = "furlong";
      },
      "seat.unit",
    ],
    [
      "no coats",
      (p: { jacket: Record<string, unknown> }) => {
        p.jacket.coats = [];
      },
      "jacket.coats",
    ],
    [
      "a coat as thick as a wall",
      (p: { jacket: { coats: { thicknessMm: number }[] } }) => {
        p.jacket.coats[0].thicknessMm = 400;
      },
      "jacket.coats.0.thicknessMm",
    ],
    [
      "a pull without length",
      (p: { survey: Record<string, unknown> }) => {
        p.survey.pull = [0, 0, 0];
      },
      "survey.pull",
    ],
    [
      "a pull of two figures",
      (p: { parting: Record<string, unknown> }) => {
        p.parting.pulls = [[1, 0]];
      },
      "parting.pulls.0",
    ],
    [
      "a shell of papier mache",
      (p: { shell: Record<string, unknown> }) => {
        p.shell.system = "papier-mache";
      },
      "shell.system",
    ],
    [
      "half a cast",
      (p: { brief: Record<string, unknown> }) => {
        p.brief.edition = 0.5;
      },
      "brief.edition",
    ],
    [
      "a line of a section that is not there",
      (p: { parting: Record<string, unknown> }) => {
        const line = { points: [0, 0, 0, 9, 0, 0], handles: [0, 1], closed: false, left: 0, right: 2 };
        p.parting.layout = { sections: [{ pull: [0, 0, 1] }], lines: [line] };
      },
      "parting.layout.lines",
    ],
    [
      "handles off their line",
      (p: { parting: Record<string, unknown> }) => {
        const line = { points: [0, 0, 0, 9, 0, 0], handles: [0, 5], closed: false, left: 0, right: 1 };
        p.parting.layout = { sections: [{ pull: [0, 0, 1] }, { pull: [0, 0, 1] }], lines: [line] };
      },
      "parting.layout.lines.0.handles",
    ],
    [
      "half a dab of a zone",
      (p: { zones: Record<string, unknown> }) => {
        p.zones.fragile = [1, 2, 3];
      },
      "zones.fragile",
    ],
    [
      "an own silicone that it does not keep",
      (p: { jacket: Record<string, unknown> }) => {
        p.jacket.silicone = "own-nowhere";
      },
      "materials",
    ],
    [
      "jute in the place of plaster",
      (p: { materials: Record<string, unknown> }) => {
        p.materials.instead = { "casting-plaster": "jute-scrim" };
      },
      "materials",
    ],
    [
      "a smoothing that is no number",
      (p: { jacket: Record<string, unknown> }) => {
        p.jacket.smoothingMm = Number.NaN;
      },
      "jacket.smoothingMm",
    ],
  ])("refuses %s and says where", (_name, change, place) => {
    const read = planDocument.safeParse(spoiled(change as never));
    expect(read.success).toBe(false);
    expect(read.error?.issues.some((issue) => issue.path.join(".").startsWith(place))).toBe(true);
  });
});

describe("requests", () => {
  const id = "7d444840-9dc0-41d1-b245-5ffdce74fad2";
  it("a new piece needs a name, trimmed", () => {
    expect(createPiece.parse({ name: "  Bust ", scanId: id, document: newPlan() }).name).toBe("Bust");
    expect(createPiece.safeParse({ name: " ", scanId: id, document: newPlan() }).success).toBe(false);
    expect(createPiece.safeParse({ name: "x".repeat(121), scanId: id, document: newPlan() }).success).toBe(false);
  });
  it("a change must change something", () => {
    expect(changePiece.safeParse({}).success).toBe(false);
    expect(changePiece.safeParse({ station: "Where?" }).success).toBe(false);
    expect(changePiece.parse({ away: true })).toEqual({ away: true });
  });
  it("a save names the revision it was made on", () => {
    expect(savePlan.safeParse({ document: newPlan() }).success).toBe(false);
    expect(savePlan.safeParse({ revision: 0, document: newPlan() }).success).toBe(false);
  });
  it("a result's key is a hash and nothing else", () => {
    expect(resultKey.safeParse("a".repeat(64)).success).toBe(true);
    for (const bad of ["", "A".repeat(64), "../../etc/passwd", "g".repeat(64)])
      expect(resultKey.safeParse(bad).success).toBe(false);
  });
});

it("settings hold together: the defaults pass, money without sense does not", () => {
  const whole = { ...DEFAULT_SETTINGS, memberName: "Ines" };
  expect(settings.parse(whole)).toEqual(whole);
  expect(settings.safeParse({ ...whole, memberName: "" }).success).toBe(false);
  expect(settings.safeParse({ ...whole, rates: { ...whole.rates, hourMinor: -5 } }).success).toBe(false);
  expect(settings.safeParse({ ...whole, rates: { ...whole.rates, hourMinor: 12.5 } }).success).toBe(false);
});

it("every error code fits the one shape", () => {
  for (const code of errorCodes) expect(apiError.safeParse({ error: { code, message: "m" } }).success).toBe(true);
  expect(apiError.safeParse({ error: { code: "teapot", message: "m" } }).success).toBe(false);
});

describe("results on the wire", () => {
  it("are what a plan that was worked out says, with all its warnings, and nothing less", async () => {
    const cup = lathe(
      [
        [0, 0],
        [120, 0],
        [40, 160],
        [120, 240],
        [0, 240],
      ],
      48,
    );
    const result = new PlanEngine(cup).run(newPlan(), TYPICAL_RATES, 12, plainContext);
    const { figures } = await bundleOf(result, { readMs: 0, planMs: 0, totalMs: 0 }, ALONE);
    const sent = JSON.parse(JSON.stringify(figures)) as unknown;
    expect(bundleFigures.parse(sent)).toEqual(sent);
    const shown = JSON.parse(JSON.stringify(figuresOf(figures, newPlan(), TYPICAL_RATES))) as unknown;
    expect(planFigures.parse(shown)).toEqual(shown);
    const short = {
      ...figures,
      report: { ...figures.report, jacket: { ...figures.report.jacket, siliconeG: undefined } },
    };
    expect(bundleFigures.safeParse(short).success).toBe(false);
  });
});

describe("a store", () => {
  it("has after the wire what it had before, and no more", () => {
    const edits = { "paste-wax": { packs: [{ amount: 1, priceMinor: 900 }], supplier: "", shipped: [] } };
    const read = store.parse(JSON.parse(JSON.stringify({ lots: [], edits, own: [OWN_SILICONE] })));
    expect(Object.keys(read.edits)).toEqual(["paste-wax"]);
    expect(ownPacks(read)).toEqual({ "paste-wax": edits["paste-wax"].packs, [OWN_SILICONE.id]: OWN_SILICONE.packs });
    expect(storedEntries(read).find(({ id }) => id === OWN_SILICONE.id)).toMatchObject({ isOwn: true });
  });
});
