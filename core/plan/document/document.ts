/**
 * The plan document: everything the user decides, and nothing that can be worked out from it. Its schema for the
 * wire, and the upgrades between its versions, stand in `contract/plan.ts`.
 */

import { type CastingSettings, TYPICAL_CASTING } from "../../casting/settings.ts";
import { type FlangeSettings, TYPICAL_FLANGES } from "../../flange/settings.ts";
import { type FootSettings, TYPICAL_FOOT } from "../../foot/settings.ts";
import { type Coat, plainCoat } from "../../jacket/coat.ts";
import { NO_SEAM, type Seam } from "../../jacket/seam.ts";
import type { Stop } from "../../jacket/stops.ts";
import { type JacketKeySettings, TYPICAL_JACKET_KEYS } from "../../keys/settings.ts";
import type { SiliconeKey } from "../../materials/catalogue.ts";
import { AS_USUAL, type ChosenMaterials } from "../../materials/chosen.ts";
import { type MixingSettings, TYPICAL_MIXING } from "../../materials/mixing.ts";
import { USUAL_SILICONE } from "../../materials/silicone.ts";
import type { Layout } from "../../parting/layout/layout.ts";
import type { FillChoice } from "../../release/fills.ts";
import { type RibSettings, TYPICAL_RIBS } from "../../ribs/settings.ts";
import type { LayTerms, Layup, LayupVariant, ShellLaid } from "../../shell/layup.ts";
import type { Direction } from "../../space/directions.ts";
import type { Dismissal } from "../../survey/decisions.ts";
import { NO_ZONES, type Zones } from "../../survey/zones.ts";
import type { LengthUnit } from "../../units/index.ts";
import { type Identity, NOBODY_KNOWN } from "./identity.ts";
import type { SearchRates } from "./searchRates.ts";

export const PLAN_VERSION = 12;

/** How many sections a plan may be asked for. */
export const SECTION_COUNTS = [2, 3, 4, 5, 6, 7, 8] as const;
export type SectionCount = (typeof SECTION_COUNTS)[number];

export type UpAxis = "x" | "y" | "z" | "-x" | "-y" | "-z";

export interface Brief {
  /** How many casts the mould is for. */
  readonly edition: number;
  readonly castMaterial: string;
  readonly castMethod: "solid" | "face-coat" | "slush" | "rotation";
  readonly surface: string;
  readonly liftLimitKg: number;
  /** The largest section that can be handled: door, bench, oven. */
  readonly handlingMm: number;
  /** The piece cannot be lifted off its board or laid over: no section may leave downwards past it. */
  readonly immovable: boolean;
}

/** What was decided about two materials that must not touch. */
export interface TouchingChoice {
  /** The rule it answers. */
  readonly rule: string;
  /** Taken as it is, with a reason; or met by the rule's remedy, which goes onto the buying list. */
  readonly how: "accepted" | "met";
  readonly reason: string;
}

export interface PlanDocument {
  readonly version: typeof PLAN_VERSION;
  readonly seat: {
    readonly unit: LengthUnit;
    /** Correction from the tape check; 1 where none was made. */
    readonly tapeScale: number;
    readonly up: UpAxis;
    /** Turn about the upright, degrees anticlockwise seen from above. */
    readonly turnDeg: number;
    readonly onBoard: boolean;
  };
  readonly brief: Brief;
  readonly survey: {
    readonly pull: Direction;
    readonly draftDeg: number;
    /** What was found that needed a decision, and has one. */
    readonly dismissed: readonly Dismissal[];
  };
  readonly jacket: {
    /** What the coats are of where one does not say otherwise, by its entry in the catalogue or among the plan's own. */
    readonly silicone: SiliconeKey;
    readonly coats: readonly Coat[];
    readonly smoothingMm: number;
    readonly rimWidthMm: number;
    readonly thickerMm: number;
    readonly seam: Seam;
    /** Gaps under the piece no higher than this are closed with clay before the first coat, mm. */
    readonly footClayMm: number;
    /** Through-holes closed with clay before the first coat. */
    readonly stops: readonly Stop[];
  };
  readonly parting: {
    readonly sections: "auto" | SectionCount;
    /** The user's own pulls; null lets them be suggested. */
    readonly pulls: readonly Direction[] | null;
    /** The rates its lines were suggested at; null while none have been, or to go by the workshop's as they are now. */
    readonly suggestedAt: SearchRates | null;
    /** How deep a section may press into the rubber and still come off, mm; null goes by the jacket's thickness. */
    readonly giveMm: number | null;
    /** Fills thicker than this are made of clay, mm. */
    readonly mostSiliconeMm: number;
    /** Sections that are suggested are no smaller, mm2. */
    readonly leastSectionMm2: number;
    /** What was chosen by hand for single fills: what they are made of, or that they are left open. */
    readonly fills: readonly FillChoice[];
    /** Sections and lines laid by hand; null lets them be laid out. They come before the pulls and the number. */
    readonly layout: Layout | null;
  };
  /** The workshop's own materials that it speaks of, and what stands in for what is usual. */
  readonly materials: ChosenMaterials;
  /** How its mixes are weighed and poured. */
  readonly mixing: MixingSettings;
  /** Answers to what must not touch what. */
  readonly touching: { readonly answers: readonly TouchingChoice[] };
  /** Zones painted on the piece, in its seated space. */
  readonly zones: Zones;
  /** The ids of what was planned, kept by overlap from plan to plan. */
  readonly identity: Identity;
  readonly shell: ShellLaid & {
    /** Lay-ups that were kept to be held against this one. */
    readonly variants: readonly LayupVariant[];
    readonly flanges: FlangeSettings;
    readonly casting: CastingSettings;
    readonly jacketKeys: JacketKeySettings;
    readonly ribs: RibSettings;
    readonly foot: FootSettings;
  };
}

/** A fresh plan. Every figure is typical and editable. */
export function newPlan(seat: Partial<PlanDocument["seat"]> = {}): PlanDocument {
  return {
    version: PLAN_VERSION,
    seat: { unit: "mm", tapeScale: 1, up: "z", turnDeg: 0, onBoard: true, ...seat },
    brief: {
      edition: 1,
      castMaterial: "gypsum",
      castMethod: "face-coat",
      surface: "clay",
      liftLimitKg: 25,
      handlingMm: 2000,
      immovable: false,
    },
    survey: { pull: [0, -1, 0], draftDeg: 1, dismissed: [] },
    jacket: {
      silicone: USUAL_SILICONE,
      coats: [
        plainCoat({ id: "coat-1", thicknessMm: 0.8, thickened: false, pigment: "#e9e4d8" }),
        plainCoat({ id: "coat-2", thicknessMm: 2.5, thickened: true, pigment: "#6f9ec2" }),
        plainCoat({ id: "coat-3", thicknessMm: 2.5, thickened: true, pigment: "#d8a25e" }),
        plainCoat({ id: "coat-4", thicknessMm: 2.2, thickened: true, pigment: "#8fae86" }),
      ],
      smoothingMm: 20,
      rimWidthMm: 60,
      thickerMm: 4,
      seam: NO_SEAM,
      footClayMm: 30,
      stops: [],
    },
    parting: {
      sections: "auto",
      pulls: null,
      suggestedAt: null,
      giveMm: null,
      mostSiliconeMm: 15,
      leastSectionMm2: 20_000,
      fills: [],
      layout: null,
    },
    materials: AS_USUAL,
    mixing: TYPICAL_MIXING,
    touching: { answers: [] },
    zones: NO_ZONES,
    identity: { ...NOBODY_KNOWN, next: 5 },
    shell: {
      system: "gypsum-jute",
      figures: {},
      order: [],
      sections: [],
      variants: [],
      flanges: TYPICAL_FLANGES,
      casting: TYPICAL_CASTING,
      jacketKeys: TYPICAL_JACKET_KEYS,
      ribs: TYPICAL_RIBS,
      foot: TYPICAL_FOOT,
    },
  };
}

/** What the layers of a plan's shell depend on beside their lay-up. */
export function layTerms({ mixing, materials }: Pick<PlanDocument, "mixing" | "materials">): LayTerms {
  return { temperatureC: mixing.temperatureC, materials };
}

/** What every coat is of, in their order. */
export function coatSilicones({ coats, silicone }: Pick<PlanDocument["jacket"], "coats" | "silicone">): SiliconeKey[] {
  return coats.map((coat) => coat.silicone ?? silicone);
}

/** The shell's own lay-up, then those of the sections that there are. */
export function layupsInUse({ shell, identity }: Pick<PlanDocument, "shell" | "identity">): Layup[] {
  return [shell, ...shell.sections.filter(({ section }) => identity.sections.some(({ id }) => id === section))];
}
