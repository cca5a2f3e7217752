/** All rules of what must not touch what. To add a group: a file beside this one, and its line here. */

import type { Family } from "../entries/entry.ts";
import { GYPSUM_RULES } from "./gypsum.ts";
import { PLATINUM_RULES } from "./platinum.ts";
import { RESIN_RULES } from "./resins.ts";
import type { Meeting, TouchingRule } from "./rule.ts";
import { SILICONE_RULES } from "./silicone.ts";
import { SUNDRY_RULES } from "./sundry.ts";

export { MEETINGS, type Meeting, type TouchingRule } from "./rule.ts";

export const TOUCHING_RULES: readonly TouchingRule[] = [
  ...PLATINUM_RULES,
  ...SILICONE_RULES,
  ...GYPSUM_RULES,
  ...RESIN_RULES,
  ...SUNDRY_RULES,
];

/** Two materials that meet in a plan, and where. */
export interface Contact {
  readonly a: Family;
  readonly b: Family;
  readonly at: Meeting;
}

export interface Touching {
  readonly rule: TouchingRule;
  readonly at: Meeting;
  /** The two that meet there. */
  readonly between: readonly [Family, Family];
}

/** The rules that a plan's contacts break at a temperature, each told once for every place where it matters. */
export function touchingIn(contacts: readonly Contact[], temperatureC: number): Touching[] {
  return TOUCHING_RULES.flatMap((rule) => {
    if (rule.below !== undefined && temperatureC >= rule.below) return [];
    if (rule.above !== undefined && temperatureC <= rule.above) return [];
    const places = contacts.filter(({ a, b, at }) => meets(rule, a, b) && (rule.at?.includes(at) ?? true));
    return [...new Set(places.map(({ at }) => at))].map((at) => {
      const { a, b } = places.find((place) => place.at === at) as Contact;
      return { rule, at, between: [a, b] };
    });
  });
}

/** Two families as people read them: "tin silicone with timber". */
export function inWords([a, b]: readonly [Family, Family]): string {
  const plain = (family: Family) => family.replaceAll("-", " ");
  return a === b ? `${plain(a)} with itself` : `${plain(a)} with ${plain(b)}`;
}

function meets({ pair: [left, right] }: TouchingRule, a: Family, b: Family): boolean {
  return (left.includes(a) && right.includes(b)) || (left.includes(b) && right.includes(a));
}
