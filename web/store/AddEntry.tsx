/** A material of the workshop's own, put into its catalogue. */
import { useState } from "react";
import { entryOf, MATERIAL_IDS, type MaterialId } from "../../core/materials/catalogue.ts";
import {
  FAMILIES,
  type Family,
  FIGURES,
  type FigureKey,
  GROUPS,
  type Group,
} from "../../core/materials/entries/entry.ts";
import type { OwnEntry, OwnId } from "../../core/materials/entries/own.ts";
import { Field } from "./Field.tsx";
import { messages } from "./messages.ts";
import { mixText, readMix } from "./mixText.ts";
import { readPacks } from "./packsText.ts";

const t = messages.entries;
const UNITS = ["kg", "l", "m2", "m", "pcs"] as const;

/** Figures of a new entry that can be typed, as they are typed; what is left empty is not known. */
type Typed = Partial<Readonly<Record<FigureKey, string>>>;

export function AddEntry({ onAdd, taken }: { onAdd: (entry: OwnEntry) => void; taken: readonly string[] }) {
  const [name, setName] = useState("");
  const [unit, setUnit] = useState<OwnEntry["unit"]>("kg");
  const [group, setGroup] = useState<Group>("clays");
  const [family, setFamily] = useState<Family>("none");
  const [model, setModel] = useState<MaterialId | "">("");
  const [typed, setTyped] = useState<Typed>({ densityGPerCm3: "" });
  const [mix, setMix] = useState("");
  const [packs, setPacks] = useState("");
  const read = readPacks(packs);
  const parts = readMix(mix);
  const figures = readFigures(typed);
  const wrong = name.trim() === "" || !read || !parts || !figures;
  /** As another material is: what is known of that is where this one begins. */
  const like = (id: MaterialId | "") => {
    setModel(id);
    if (id === "") return;
    const entry = entryOf(id);
    setUnit(entry.unit);
    setGroup(entry.group);
    setFamily(entry.family);
    setTyped(Object.fromEntries(Object.entries(entry.figures).map(([key, value]) => [key, String(value)])));
    setMix(mixText(entry.mix ?? []));
  };
  const select = <T extends string>(
    label: string,
    value: T,
    all: readonly T[],
    nameOf: (one: T) => string,
    set: (one: T) => void,
  ) => (
    <Field name={label}>
      <select className="select select-sm" value={value} onChange={(event) => set(event.target.value as T)}>
        {all.map((one) => (
          <option key={one} value={one}>
            {nameOf(one)}
          </option>
        ))}
      </select>
    </Field>
  );
  const text = (label: string, value: string, set: (text: string) => void, width: string, hint = "") => (
    <Field key={label} name={label}>
      <input
        className={`input input-sm ${width}`}
        maxLength={80}
        placeholder={hint}
        value={value}
        onChange={(event) => set(event.target.value)}
      />
    </Field>
  );
  return (
    <form
      className="flex flex-wrap items-end gap-3 border-t border-base-300 pt-4"
      aria-label={t.add}
      onSubmit={(event) => {
        event.preventDefault();
        if (wrong || !read || !parts || !figures) return;
        const hazards = model === "" ? [] : entryOf(model).hazards;
        const entry = { name: name.trim(), unit, group, family, figures, mix: parts, packs: read, hazards };
        onAdd({ id: freeId(name, taken), ...entry, supplier: "", note: "" });
        setName("");
        setPacks("");
        setMix("");
        setModel("");
        setTyped({ densityGPerCm3: "" });
      }}
    >
      <h3 className="w-full font-semibold">{t.add}</h3>
      {text(t.newName, name, setName, "w-56")}
      <Field name={t.like}>
        <select
          className="select select-sm w-56"
          value={model}
          onChange={(event) => like(event.target.value as MaterialId | "")}
        >
          <option value="">{t.likeNothing}</option>
          {MATERIAL_IDS.map((id) => (
            <option key={id} value={id}>
              {entryOf(id).name}
            </option>
          ))}
        </select>
      </Field>
      {select(messages.lots.unit, unit, UNITS, String, setUnit)}
      {select(t.group, group, Object.keys(GROUPS) as Group[], (key) => GROUPS[key], setGroup)}
      {select(t.family, family, FAMILIES, (key) => (key === "none" ? t.plain : key.replaceAll("-", " ")), setFamily)}
      {text(t.mix, mix, setMix, "w-44", "100 base, 5 catalyst")}
      {text(t.packs, packs, setPacks, "w-48", "5 at 126; 20 at 456")}
      <div className="flex w-full flex-wrap gap-3">
        {(Object.keys(FIGURES) as FigureKey[])
          .filter((key) => typed[key] !== undefined)
          .map((key) =>
            text(
              [FIGURES[key].name, FIGURES[key].unit].filter(Boolean).join(", "),
              typed[key] ?? "",
              (value) => setTyped({ ...typed, [key]: value }),
              "w-28",
            ),
          )}
      </div>
      {!parts && <p className="w-full text-sm text-error">{t.wrongMix}</p>}
      {!figures && <p className="w-full text-sm text-error">{t.wrongFigure}</p>}
      <button type="submit" className="btn btn-sm btn-neutral" disabled={wrong}>
        {t.addIt}
      </button>
    </form>
  );
}

/** @returns null where one of them is no number, or less than nothing */
function readFigures(typed: Typed): OwnEntry["figures"] | null {
  const read = Object.entries(typed)
    .filter(([, value]) => value.trim() !== "")
    .map(([key, value]): [string, number] => [key, Number(value.replace(",", "."))]);
  return read.every(([, value]) => value >= 0 && value <= 100_000) ? Object.fromEntries(read) : null;
}

/** A name for the entry that nothing else has. */
function freeId(name: string, taken: readonly string[]): OwnId {
  const plain = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
  const stem: OwnId = `own-${(plain || "material").slice(0, 41).replace(/-$/, "")}`;
  for (let n = 1; ; n++) {
    const id: OwnId = n === 1 ? stem : `${stem}-${n}`;
    if (!taken.includes(id)) return id;
  }
}
