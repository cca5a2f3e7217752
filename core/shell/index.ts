/**
 * Shell systems. To add one: a file in `kinds/` exporting a `ShellSystem` (parameters as data, one `takeoff`), and
 * its line in `shellSystems`. Its form, its schema and its report rows follow from the parameters.
 */
import { gypsumJute } from "./kinds/gypsumJute.ts";
import { polyesterMat } from "./kinds/polyesterMat.ts";
import type { ShellDensities, ShellSpan, ShellSystem, ShellTakeoff } from "./kinds/system.ts";

export type { ShellDensities, ShellParameter, ShellSpan, ShellSystem, ShellTakeoff } from "./kinds/system.ts";

export const shellSystems: readonly ShellSystem[] = [gypsumJute, polyesterMat];

/** @throws RangeError for a system nobody registered */
export function shellSystem(id: string): ShellSystem {
  const system = shellSystems.find((candidate) => candidate.id === id);
  if (!system)
    throw new RangeError(`There is no shell system "${id}"; there are ${shellSystems.map((s) => s.id).join(", ")}.`);
  return system;
}

/** The takeoff with the user's figures, each falling back to the system's own. */
export function shellTakeoff(id: string, figures: Readonly<Record<string, number>>, span: ShellSpan): ShellTakeoff {
  return shellSystem(id).takeoff(span, figureOf(id, figures));
}

/** Densities of a shell by the user's figures. */
export function shellDensities(id: string, figures: Readonly<Record<string, number>>): ShellDensities {
  return shellSystem(id).densities(figureOf(id, figures));
}

function figureOf(id: string, figures: Readonly<Record<string, number>>): (key: string) => number {
  const system = shellSystem(id);
  return (key) => {
    const parameter = system.parameters.find((candidate) => candidate.key === key);
    if (!parameter) throw new Error(`Shell system ${id} asks for an unknown figure ${key}.`);
    return Math.min(parameter.most, Math.max(parameter.least, figures[key] ?? parameter.value));
  };
}
