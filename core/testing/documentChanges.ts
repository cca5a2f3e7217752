/** A plan with every one of its fields changed in turn, for tests of what depends on which. */
import type { OwnEntry } from "../materials/entries/own.ts";
import { newPlan, type PlanDocument } from "../plan/document/document.ts";
import { searchRatesOf } from "../plan/document/searchRates.ts";
import { TYPICAL_RATES } from "../takeoff/rates.ts";

export const PLAN = newPlan();

/** The plan with lines laid by hand. */
export const LAID_PLAN: PlanDocument = {
  ...PLAN,
  parting: {
    ...PLAN.parting,
    layout: {
      sections: [{ pull: [0, -1, 0] }, { pull: [0, 1, 0] }],
      lines: [{ points: [0, 0, 0, 9, 0, 0, 9, 9, 0], handles: [0, 1, 2], closed: true, left: 0, right: 1 }],
    },
  },
};

const DAB = [1, 2, 3, 0, 0, 1, 20];

/** A material of the workshop's own. */
export const OWN_SILICONE: OwnEntry = {
  ...{ id: "own-blue-silicone", name: "Blue silicone", unit: "kg", group: "silicones", family: "tin-silicone" },
  figures: { densityGPerCm3: 1.3, potMin: 45, tackMin: 120, cureMin: 1440, stretchPercent: 300 },
  mix: [
    { name: "Base", parts: 100 },
    { name: "Catalyst", parts: 3 },
  ],
  packs: [{ amount: 10, priceMinor: 20_000 }],
  hazards: ["eyes"],
  supplier: "",
  note: "",
};

const { seat, brief, survey, jacket, parting, materials, mixing, zones, identity, shell } = PLAN;
/** Every field of the document, changed: by part and field. */
export const CHANGES: {
  readonly [K in Exclude<keyof PlanDocument, "version">]: Readonly<
    Record<keyof PlanDocument[K], Partial<PlanDocument>>
  >;
} = {
  seat: {
    unit: { seat: { ...seat, unit: "cm" } },
    tapeScale: { seat: { ...seat, tapeScale: 1.01 } },
    up: { seat: { ...seat, up: "y" } },
    turnDeg: { seat: { ...seat, turnDeg: 5 } },
    onBoard: { seat: { ...seat, onBoard: false } },
  },
  brief: {
    edition: { brief: { ...brief, edition: 9 } },
    castMaterial: { brief: { ...brief, castMaterial: "wax" } },
    castMethod: { brief: { ...brief, castMethod: "solid" } },
    surface: { brief: { ...brief, surface: "oak" } },
    liftLimitKg: { brief: { ...brief, liftLimitKg: 30 } },
    handlingMm: { brief: { ...brief, handlingMm: 900 } },
    immovable: { brief: { ...brief, immovable: true } },
  },
  survey: {
    pull: { survey: { ...survey, pull: [1, 0, 0] } },
    draftDeg: { survey: { ...survey, draftDeg: 2 } },
    dismissed: { survey: { ...survey, dismissed: [{ kind: "gap", at: [1, 2, 3], reason: "" }] } },
  },
  jacket: {
    silicone: { jacket: { ...jacket, silicone: "platinum-brushable" } },
    coats: { jacket: { ...jacket, coats: jacket.coats.slice(1) } },
    smoothingMm: { jacket: { ...jacket, smoothingMm: 12 } },
    rimWidthMm: { jacket: { ...jacket, rimWidthMm: 80 } },
    // How much thicker zones are matters where there are any.
    thickerMm: { jacket: { ...jacket, thickerMm: 6 } },
    seam: { jacket: { ...jacket, seam: { kind: "slit", school: "cut", points: [0, 0, 0, 0, 0, 9] } } },
    footClayMm: { jacket: { ...jacket, footClayMm: 0 } },
    stops: { jacket: { ...jacket, stops: [{ loop: [0, 0, 0, 9, 0, 0, 9, 9, 0] }] } },
  },
  parting: {
    sections: { parting: { ...parting, sections: 3 } },
    pulls: { parting: { ...parting, pulls: [[0, 0, 1]] } },
    // The same rates as the workshop's: nothing else is suggested.
    suggestedAt: { parting: { ...parting, suggestedAt: searchRatesOf(TYPICAL_RATES) } },
    giveMm: { parting: { ...parting, giveMm: 0.9 } },
    mostSiliconeMm: { parting: { ...parting, mostSiliconeMm: 9 } },
    leastSectionMm2: { parting: { ...parting, leastSectionMm2: 0 } },
    fills: { parting: { ...parting, fills: [{ at: [1, 2, 3], kind: "plug" }] } },
    layout: { parting: LAID_PLAN.parting },
  },
  materials: {
    own: { materials: { ...materials, own: [OWN_SILICONE] } },
    instead: { materials: { ...materials, instead: { "casting-plaster": "moulding-plaster" } } },
  },
  touching: {
    answers: { touching: { answers: [{ rule: "gypsum-timber", how: "met", reason: "" }] } },
  },
  mixing: {
    temperatureC: { mixing: { ...mixing, temperatureC: 28 } },
    people: { mixing: { ...mixing, people: 2 } },
    pace: { mixing: { ...mixing, pace: 1.5 } },
    vesselMl: { mixing: { ...mixing, vesselMl: 3000 } },
    scaleStepG: { mixing: { ...mixing, scaleStepG: 5 } },
    scaleMostG: { mixing: { ...mixing, scaleMostG: 5000 } },
  },
  zones: {
    keepClear: { zones: { ...zones, keepClear: DAB } },
    fragile: { zones: { ...zones, fragile: DAB } },
    thicker: { zones: { ...zones, thicker: DAB } },
  },
  identity: {
    next: { identity: { ...identity, next: 99 } },
    sections: { identity: { ...identity, sections: [{ id: "section-9", origin: 0, places: [1, 2, 3] }] } },
    lines: { identity: { ...identity, lines: [{ id: "line-9", between: ["a", "b"], places: [1, 2, 3] }] } },
    fills: { identity: { ...identity, fills: [{ id: "fill-9", at: [1, 2, 3] }] } },
  },
  shell: {
    system: { shell: { ...shell, system: "polyester-mat" } },
    // The order of its layers, and what is kept beside it, change no body.
    order: { shell: { ...shell, order: ["jute-1", "splash"] } },
    variants: {
      shell: { ...shell, variants: [{ id: "variant-9", name: "v", system: "epoxy-cloth", figures: {}, order: [] }] },
    },
    // Thicker than the rest.
    sections: {
      shell: {
        ...shell,
        sections: [
          {
            section: "section-9",
            system: "gypsum-jute",
            figures: { thicknessMm: 40, flangeThicknessMm: 50 },
            order: [],
          },
        ],
      },
    },
    // The thickness of flanges follows, too.
    figures: { shell: { ...shell, figures: { thicknessMm: 30, flangeThicknessMm: 31 } } },
    ribs: { shell: { ...shell, ribs: { ...shell.ribs, spanMm: 333 } } },
    jacketKeys: { shell: { ...shell, jacketKeys: { ...shell.jacketKeys, kind: "none" } } },
    foot: { shell: { ...shell, foot: { ...shell.foot, beyondMm: 77 } } },
    casting: { shell: { ...shell, casting: { ...shell.casting, fillShare: 0.5 } } },
    flanges: { shell: { ...shell, flanges: { ...shell.flanges, widthMm: 60 } } },
  },
};
