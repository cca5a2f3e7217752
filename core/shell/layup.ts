/** How a shell is laid up, as it was decided: its system, its figures and the order of its layers; by section where one differs. */
import type { ChosenMaterials } from "../materials/chosen.ts";

export interface Layup {
  readonly system: string;
  /** The user's figures by the keys of the system's parameters; typical where one is left out. */
  readonly figures: Readonly<Record<string, number>>;
  /** Ids of its layers in the order they are laid, the first on the jacket; those left out stand where the system has them. */
  readonly order: readonly string[];
}

/** A section that is laid up otherwise than the rest. */
export interface SectionLayup extends Layup {
  /** Id of the section. */
  readonly section: string;
}

/** A lay-up that was kept to be held against others. */
export interface LayupVariant extends Layup {
  readonly id: string;
  readonly name: string;
}

export interface ShellLaid extends Layup {
  readonly sections: readonly SectionLayup[];
}

/** What layers depend on beside their lay-up. */
export interface LayTerms {
  readonly temperatureC: number;
  readonly materials: ChosenMaterials;
}

/** No more variants are kept. */
export const MOST_VARIANTS = 12;

/** @param section its id; the shell's own lay-up where it is not known */
export function layupFor(shell: ShellLaid, section: string | undefined): Layup {
  return shell.sections.find((own) => own.section === section) ?? shell;
}

/** Every lay-up that some sections have, in their order. @param ids of the sections */
export function layupsFor(shell: ShellLaid, ids: readonly (string | undefined)[]): Layup[] {
  return ids.map((id) => layupFor(shell, id));
}

/** The shell's own lay-up, then those of single sections. */
export function allLayups(shell: ShellLaid): Layup[] {
  return [shell, ...shell.sections];
}

/** A lay-up with one layer set at another place among its layers. @param ids of all layers as they stand */
export function moved(ids: readonly string[], from: number, to: number): string[] {
  const rest = ids.filter((_, k) => k !== from);
  return [...rest.slice(0, to), ids[from], ...rest.slice(to)];
}
