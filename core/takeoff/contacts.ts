/** Which materials of a plan meet, and where: what the rules of what must not touch what are held against. */
import { entryOf } from "../materials/catalogue.ts";
import type { Family } from "../materials/entries/entry.ts";
import { type Contact, type Touching, touchingIn } from "../materials/touching/index.ts";
import { coatSilicones, layTerms, layupsInUse, type PlanDocument } from "../plan/document/document.ts";
import { shellLayers, shellSystem } from "../shell/index.ts";

/** What a piece or a cast is, by the words it is called by; the more particular first. */
const WORDS: readonly (readonly [RegExp, Family])[] = [
  [/sulphur|sulfur/i, "sulphur-clay"],
  [/oil.?clay|plasticine|plastilin/i, "oil-clay"],
  [/print|photopolymer/i, "photopolymer"],
  [/terracotta|bisque|fired|unglazed/i, "bisque"],
  [/glass|glaze|porcelain|ceramic/i, "glassy"],
  [/limestone|marble|sandstone|stone|alabaster/i, "limestone"],
  [/concrete|cement|mortar/i, "cement"],
  [/plaster|gypsum/i, "gypsum"],
  [/wax/i, "wax"],
  [/bone|ivory|antler|\bhorn\b/i, "bone"],
  [/polystyrene|foam/i, "foam-board"],
  [/polyester/i, "polyester"],
  [/urethane/i, "polyurethane"],
  [/epoxy/i, "epoxy"],
  [/wood|timber|\boak\b|\bpine\b/i, "timber"],
  [/paint|varnish/i, "paint"],
  [/vinyl|pvc/i, "pvc"],
  [/bronze|brass|copper/i, "bronze"],
  [/alumin/i, "aluminium"],
  [/\biron\b|steel/i, "steel"],
  [/latex/i, "latex"],
  [/clay/i, "water-clay"],
];

/** All that a piece or a cast is called by; painted clay is clay, and paint. */
export function familiesNamed(text: string): Family[] {
  const named = WORDS.filter(([words]) => words.test(text)).map(([, family]) => family);
  // Clay that is named more closely is not wet clay as well.
  return named.length > 1 && /oil|sulph|sulf|plastic|plastilin/i.test(text)
    ? named.filter((family) => family !== "water-clay")
    : named;
}

export function contactsOf(document: PlanDocument): Contact[] {
  const { jacket, shell, brief, seat, materials } = document;
  const coats = coatSilicones(jacket).map((id) => entryOf(id, materials.own).family);
  // The first coat lies on the piece and takes the cast; the last is what the shell is laid on.
  const [silicone] = coats;
  const outer = coats[coats.length - 1];
  const surface = familiesNamed(brief.surface);
  const cast = familiesNamed(brief.castMaterial);
  const layers = layupsInUse(document).flatMap((layup) => shellLayers(layup, layTerms(document)));
  const taken = layers.flatMap(({ takes }) => takes.map(({ material }) => entryOf(material, materials.own).family));
  const hasFoamRibs =
    shell.ribs.kind === "ribs" && layupsInUse(document).some(({ system }) => !shellSystem(system).rib.isSolid);
  const inShell = [...new Set(taken)];
  const binders = inShell.filter((family) => BINDERS.includes(family));
  const onBoard: Contact[] = seat.onBoard
    ? [{ a: silicone, b: "timber", at: "board" }, ...binders.map((a): Contact => ({ a, b: "timber", at: "board" }))]
    : [];
  return [
    ...surface.map((b): Contact => ({ a: silicone, b, at: "surface" })),
    ...coats.slice(1).map((b, k): Contact => ({ a: coats[k], b, at: "jacket" })),
    ...binders.flatMap((a): Contact[] => [
      ...inShell.map((b): Contact => ({ a, b, at: "shell" })),
      ...(shell.ribs.kind === "poles" ? [{ a, b: POLES[shell.ribs.pole], at: "shell" } as const] : []),
      ...(hasFoamRibs ? [{ a, b: "foam-board", at: "shell" } as const] : []),
      { a, b: outer, at: "shell" },
      { a, b: "water-clay", at: "walls" },
      // The next section is laid against the last one's flange.
      ...binders.map((b): Contact => ({ a, b, at: "walls" })),
    ]),
    { a: outer, b: "petroleum-jelly", at: "walls" },
    ...cast.map((b): Contact => ({ a: silicone, b, at: "cast" })),
    ...binders.flatMap((a) => cast.map((b): Contact => ({ a, b, at: "cast" }))),
    ...onBoard,
    ...(binders.includes("gypsum") ? [{ a: "gypsum", b: "drain", at: "cleaning" } as const] : []),
  ];
}

const BINDERS: readonly Family[] = ["gypsum", "polyester", "epoxy", "polyurethane"];
const POLES: Readonly<Record<PlanDocument["shell"]["ribs"]["pole"], Family>> = {
  stainless: "stainless",
  aluminium: "aluminium",
  "glass-fibre": "glass-fibre",
  steel: "steel",
  timber: "timber",
};

/** What of a plan must not touch. */
export function touchingOf(document: PlanDocument): Touching[] {
  return touchingIn(contactsOf(document), document.mixing.temperatureC);
}
