/** What a proof ends with: a parting whose sections are numbered in the order they are built. */
import type { NearestField } from "../../field/nearest.ts";
import type { CurvatureSums } from "../../mesh/curvature.ts";
import type { TriangleMesh } from "../../mesh/mesh.ts";
import type { FillWith } from "../../parting/layout/layout.ts";
import type { Trouble } from "../../parting/layout/sections.ts";
import type { HiddenStretch } from "../../parting/lines/bothSides.ts";
import type { PartingLine } from "../../parting/lines/cut.ts";
import type { Block } from "../../release/blocks.ts";
import type { BodyData } from "../../release/body.ts";
import type { Cells } from "../../release/cells.ts";
import type { FillKind, FillPart } from "../../release/fills.ts";
import type { Direction } from "../../space/directions.ts";
import type { PlanWarning } from "./warning.ts";

export interface PlannedSection {
  readonly number: number;
  /** Its place among the user's pulls, or the sections laid by hand, that it was made from; of a suggested plan, its own. */
  readonly origin: number;
  readonly pull: Direction;
  readonly areaMm2: number;
  readonly bends: CurvatureSums;
  readonly fillMm3: number;
  readonly fillWith: FillWith;
  /** Number of the section that it is a plug under; null for any other. */
  readonly plugUnder: number | null;
  /** The thickest of its fill; settled plans only. */
  readonly fillThickMm: number;
  /** How deep it presses into the rubber on its way out at most, mm. */
  readonly biteMm: number;
  /** The place of its inner face that presses so deep; null where none does. */
  readonly biteAt: readonly [number, number, number] | null;
  /** How far it moves along its pull before it stands clear, mm; settled plans only. */
  readonly travelMm: number;
  /** Does it leave only after the piece, in its mould, has been lifted off the board or laid over? */
  readonly lifted: boolean;
  /** Its fills by what they are made of, mm3. */
  readonly fills: Readonly<Record<FillKind, number>>;
  readonly releases: boolean;
  readonly skin: TriangleMesh;
  /** Places that bite deeper than the give, xyz and how deep, mm, 4 per place. */
  readonly lockPoints: Float32Array;
  /** Length of parting line along this section, mm. */
  readonly lineMm: number;
  /** How far it stands along the board, mm. */
  readonly footMm: number;
  /** The board about it at 0, 10, 20 ... mm from the jacket, mm2; settled plans only. */
  readonly footAreasMm2: readonly number[];
}

/** A parting that was proven: its sections as they are built, their lines, fills, and what stands in whose way. */
export interface ProvenParting {
  /** How deep a section may press into the rubber and still come off, mm. */
  readonly giveMm: number;
  /** In the order they are built; taken apart the other way round. */
  readonly sections: readonly PlannedSection[];
  /** Which section, by number, stands in the way of which. */
  readonly blocks: readonly Block[];
  /** Numbers of sections that block each other in a circle. */
  readonly circle: readonly number[];
  /** Each with the section on its left first, then the one on its right, seen from outside; counted from 0. */
  readonly lines: readonly PartingLine[];
  /** The same lines as they run on the jacket before any fill: what is taken in hand. */
  readonly drawn: readonly PartingLine[];
  readonly partingLengthMm: number;
  /** Stretches of line, by numbers of sections, that one of their two sections' pulls does not see; settled plans only. */
  readonly hidden: readonly HiddenStretch[];
  readonly filled: TriangleMesh;
  /** The same as a field to follow ways through, and the places nearest to it. */
  readonly body: BodyData;
  readonly filledNearest: NearestField;
  /** The section of each of its vertices, counted from 0. */
  readonly filledLabel: Uint8Array;
  /** The places nearest the jacket before any fill. */
  readonly bare: NearestField;
  /** Cells of the filled jacket, and the cell of each section. */
  readonly cells: Cells;
  readonly cellOf: readonly number[];
  /** The survey's mesh, and the section of each of its vertices, counted from 0. */
  readonly surveyMesh: TriangleMesh;
  readonly surveyNearest: NearestField;
  /** Its typical edge. */
  readonly surveyEdgeMm: number;
  readonly surveyLabel: Uint8Array;
  readonly fillMm3: number;
  /** Of it, filled with clay. */
  readonly clayMm3: number;
  /** Of it, hard plugs. */
  readonly plugMm3: number;
  /** The fills part by part, largest first; what of each lies under every section, in their order. */
  readonly fillParts: readonly FillPart[];
  /** What the fill at a place is made of; null where there is none. */
  readonly fillKindAt: (x: number, y: number, z: number) => FillKind | null;
  /** Sections laid by hand, by their place in the layout, that are not one whole piece. */
  readonly troubles: readonly Trouble[];
  readonly warnings: readonly PlanWarning[];
}

/** How much of the fills is clay, and how much hard plugs, mm3. */
export function notSilicone(sections: readonly Pick<PlannedSection, "fills">[]) {
  return {
    clayMm3: sections.reduce((sum, { fills }) => sum + fills.clay + fills.web, 0),
    plugMm3: sections.reduce((sum, { fills }) => sum + fills.plug, 0),
  };
}
