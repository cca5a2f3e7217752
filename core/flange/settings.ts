/** What is decided about flanges and about what holds them together; every figure is typical and editable. */

export const KEY_KINDS = ["dimples", "groove", "none"] as const;
export type FlangeKeyKind = (typeof KEY_KINDS)[number];

/** What holds two sections together along a wall. */
export const JOINTS = ["bolts", "straps", "clamps"] as const;
export type Joint = (typeof JOINTS)[number];

/** How a bolt holds: through both flanges with a nut, or in an insert that is laid into the flange that is built first. */
export const BOLT_HOLDS = ["drilled", "inserts"] as const;
export type BoltHold = (typeof BOLT_HOLDS)[number];

export interface BoltPlace {
  /** Along the wall's foot from its beginning, mm. */
  readonly alongMm: number;
  /** Off the jacket, mm. */
  readonly offMm: number;
}

/** What was decided for one wall; null goes by the rule for all. */
export interface WallChoice {
  /** Of the line that the wall stands on. */
  readonly id: string;
  readonly widthMm: number | null;
  readonly joint: Joint;
  /** What registers its flanges; null goes by the rule for all. */
  readonly keys: FlangeKeyKind | null;
  /** Bolts set by hand. */
  readonly bolts: readonly BoltPlace[] | null;
}

export interface FlangeSettings {
  /** Off the jacket; null goes by the shell, so that bolts and keys have room. */
  readonly widthMm: number | null;
  readonly bolts: {
    readonly diameterMm: number;
    /** Off the jacket; null goes by the thickness of the shell, so that nuts have room. */
    readonly offMm: number | null;
    readonly pitchMm: number;
    readonly hold: BoltHold;
  };
  readonly keys: {
    readonly kind: FlangeKeyKind;
    readonly radiusMm: number;
    readonly pitchMm: number;
  };
  readonly walls: readonly WallChoice[];
}

export const TYPICAL_FLANGES: FlangeSettings = {
  widthMm: null,
  bolts: { diameterMm: 6, offMm: null, pitchMm: 110, hold: "drilled" },
  keys: { kind: "dimples", radiusMm: 8, pitchMm: 220 },
  walls: [],
};

/** Flanges are at most so wide: room is measured no farther. */
export const FLANGE_WIDTHS_MM = { least: 20, most: 120 } as const;

export function choiceFor({ walls }: Pick<FlangeSettings, "walls">, id: string | null): WallChoice | null {
  return walls.find((wall) => wall.id === id) ?? null;
}

/** The settings with something decided for one wall; a choice that says nothing any more is dropped. */
export function chosen(settings: FlangeSettings, id: string, change: Partial<Omit<WallChoice, "id">>): FlangeSettings {
  const before = choiceFor(settings, id) ?? { id, widthMm: null, joint: "bolts", keys: null, bolts: null };
  const choice: WallChoice = { ...before, ...change };
  const others = settings.walls.filter((wall) => wall.id !== id);
  const plain = choice.widthMm === null && choice.joint === "bolts" && choice.keys === null && choice.bolts === null;
  return { ...settings, walls: plain ? others : [...others, choice] };
}
