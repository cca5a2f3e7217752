/** Edits of a plan that touch more than one of its parts: what stands in for a material, and how single sections are laid up. */
import type { MaterialId, MaterialKey, SiliconeKey } from "../../materials/catalogue.ts";
import { chosenFor, withInstead, withOwn } from "../../materials/chosen.ts";
import type { OwnEntry } from "../../materials/entries/own.ts";
import { shellSystem } from "../../shell/index.ts";
import { type Layup, layupFor } from "../../shell/layup.ts";
import type { PlanDocument } from "./document.ts";

/**
 * One material in the place of another, in the whole plan. Figures of the shell that are a figure of the material's become those
 * of what is taken: water to its powder, the weight of its mat.
 * @param entry where it is an own one
 */
export function withMaterial(
  document: PlanDocument,
  usual: MaterialId,
  id: MaterialKey,
  entry: OwnEntry | null = null,
): PlanDocument {
  const materials = withInstead(document.materials, usual, id, entry);
  const { figures, isInstead } = chosenFor(usual, materials);
  const refigured = <Laid extends Layup>(layup: Laid): Laid => {
    const own = shellSystem(layup.system).parameters.filter(({ of }) => of?.material === usual);
    const kept = Object.entries(layup.figures).filter(([key]) => !own.some((parameter) => parameter.key === key));
    const taken = own.flatMap(({ key, of, least, most }): [string, number][] => {
      const value = isInstead && of ? figures[of.figure] : undefined;
      return value === undefined ? [] : [[key, Math.min(most, Math.max(least, value))]];
    });
    return { ...layup, figures: Object.fromEntries([...kept, ...taken]) };
  };
  const shell = { ...refigured(document.shell), sections: document.shell.sections.map(refigured) };
  return tidied({ ...document, materials, shell });
}

/**
 * What the jacket, or one of its coats, is of.
 * @param coat its id; null for all that do not say otherwise
 * @param silicone null where the coat is to be as the jacket
 */
export function withSilicone(
  document: PlanDocument,
  coat: string | null,
  silicone: SiliconeKey | null,
  entry: OwnEntry | null = null,
): PlanDocument {
  const { jacket, materials } = document;
  const coats = jacket.coats.map((each) => (each.id === coat ? { ...each, silicone } : each));
  return tidied({
    ...document,
    jacket: coat === null ? { ...jacket, silicone: silicone ?? jacket.silicone } : { ...jacket, coats },
    materials: { ...materials, own: withOwn(materials.own, entry) },
  });
}

/**
 * How the shell, or one of its sections, is laid up.
 * @param section its id; null for all that do not say otherwise
 * @param layup null where the section is to be as the rest
 * @param known ids of the sections that there are: what was said of others is forgotten
 */
export function withLayup(
  document: PlanDocument,
  section: string | null,
  layup: Layup | null,
  known: readonly string[],
): PlanDocument {
  const { shell } = document;
  if (section === null) return layup ? { ...document, shell: { ...shell, ...bare(layup) } } : document;
  const others = shell.sections.filter((own) => own.section !== section && known.includes(own.section));
  const sections = layup ? [...others, { ...bare(layup), section }] : others;
  return { ...document, shell: { ...shell, sections } };
}

/** Figures, order or system of the shell's lay-up, or of a section's, changed. */
export function layupOf({ shell }: PlanDocument, section: string | null): Layup {
  return bare(section === null ? shell : layupFor(shell, section));
}

function bare({ system, figures, order }: Layup): Layup {
  return { system, figures, order };
}

/** Without the own materials that nothing in it is of. */
function tidied(document: PlanDocument): PlanDocument {
  const { jacket, materials } = document;
  const coats = jacket.coats.map(({ silicone }) => silicone);
  const taken = new Set<string | null>([jacket.silicone, ...coats, ...Object.values(materials.instead)]);
  return { ...document, materials: { ...materials, own: materials.own.filter(({ id }) => taken.has(id)) } };
}
