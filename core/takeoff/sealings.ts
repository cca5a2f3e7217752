/** What remedies that were taken ask for: something brushed over what must not touch. */
import { chosenFor } from "../materials/chosen.ts";
import type { Meeting } from "../materials/touching/rule.ts";
import type { PlanDocument } from "../plan/document/document.ts";
import type { Task } from "../schedule/line.ts";
import { MM2_PER_M2 } from "../units/index.ts";
import { touchingOf } from "./contacts.ts";
import type { Fixings } from "./fixings.ts";
import { wallsMm2 } from "./flanges.ts";
import type { JacketTotals, PartingTotals } from "./totals.ts";

export interface Sealing {
  readonly rule: string;
  /** What happens without it. */
  readonly what: string;
  readonly at: Meeting;
  readonly takes: { readonly material: Parameters<typeof chosenFor>[0]; readonly gPerM2: number };
  readonly areaM2: number;
}

/** A base board is taken to be so large until its footprint is drawn, mm2. */
const BOARD_MM2 = 1_000_000;

/** One a rule and place that is met by something that is brushed on. */
export function sealings(
  document: PlanDocument,
  jacket: JacketTotals,
  parting: PartingTotals,
  { boardMm2 = BOARD_MM2 }: Pick<Fixings, "boardMm2">,
): Sealing[] {
  const met = new Set(document.touching.answers.filter(({ how }) => how === "met").map(({ rule }) => rule));
  return touchingOf(document).flatMap(({ rule: { id, takes, what }, at }): Sealing[] => {
    if (!met.has(id) || !takes || takes.gPerM2 === 0) return [];
    const areaMm2 = at === "walls" ? wallsMm2(document, parting) : at === "board" ? boardMm2 : jacket.outerAreaMm2;
    return [{ rule: id, what, at, takes, areaM2: areaMm2 / MM2_PER_M2 }];
  });
}

/** Brushing a square metre, minutes of hands. */
const SEAL_MIN_PER_M2 = 8;
/** Where it is brushed on before the first coat, and where before the first section. */
const BEFORE_COATS: readonly Meeting[] = ["surface", "jacket", "board"];
const BEFORE_SECTIONS: readonly Meeting[] = ["walls", "shell"];
const PLACES: Readonly<Partial<Record<Meeting, string>>> = {
  surface: "the piece",
  jacket: "the piece",
  board: "the board",
  walls: "the walls",
  shell: "the jacket",
};

/** The work of it, with how long it dries: one task a material and place. */
export function sealingTasks(
  all: readonly Sealing[],
  before: "coats" | "sections",
  { materials }: Pick<PlanDocument, "materials">,
): Task[] {
  const places = before === "coats" ? BEFORE_COATS : BEFORE_SECTIONS;
  const tasks = new Map<string, Task>();
  for (const { at, takes, areaM2 } of all) {
    const place = PLACES[at];
    if (!places.includes(at) || place === undefined) continue;
    const { name, figures } = chosenFor(takes.material, materials);
    const title = `Seal ${place}: ${name.toLowerCase()}`;
    tasks.set(title, {
      ...{ id: `seal-${takes.material}-${at}`, name: title },
      ...{ handsMin: areaM2 * SEAL_MIN_PER_M2, waitMin: figures.dryMin ?? 0 },
    });
  }
  return [...tasks.values()];
}
