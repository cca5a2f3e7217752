/** A material of the workshop's own, put into its catalogue. */
import { useState } from "react";
import { FAMILIES, type Family, GROUPS, type Group } from "../../core/materials/entries/entry.ts";
import type { OwnEntry } from "../../core/materials/stock.ts";
import { Field } from "./Field.tsx";
import { messages } from "./messages.ts";
import { readPacks } from "./packsText.ts";

const t = messages.entries;
const UNITS = ["kg", "l", "m2", "m", "pcs"] as const;

export function AddEntry({ onAdd, taken }: { onAdd: (entry: OwnEntry) => void; taken: readonly string[] }) {
  const [name, setName] = useState("");
  const [unit, setUnit] = useState<OwnEntry["unit"]>("kg");
  const [group, setGroup] = useState<Group>("clays");
  const [family, setFamily] = useState<Family>("none");
  const [density, setDensity] = useState("");
  const [packs, setPacks] = useState("");
  const read = readPacks(packs);
  const gPerCm3 = Number(density.replace(",", "."));
  const wrong = name.trim() === "" || !read || (density.trim() !== "" && !(gPerCm3 > 0));
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
  const typed = (label: string, value: string, set: (text: string) => void, width: string, hint = "") => (
    <Field name={label}>
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
        if (wrong || !read) return;
        const figures = density.trim() === "" ? {} : { densityGPerCm3: gPerCm3 };
        const entry = { name: name.trim(), unit, group, family, figures, packs: read, supplier: "", note: "" };
        onAdd({ id: freeId(name, taken), ...entry });
        setName("");
        setPacks("");
        setDensity("");
      }}
    >
      <h3 className="w-full font-semibold">{t.add}</h3>
      {typed(t.newName, name, setName, "w-56")}
      {select(messages.lots.unit, unit, UNITS, String, setUnit)}
      {select(t.group, group, Object.keys(GROUPS) as Group[], (key) => GROUPS[key], setGroup)}
      {select(t.family, family, FAMILIES, (key) => (key === "none" ? t.plain : key.replaceAll("-", " ")), setFamily)}
      {typed(t.density, density, setDensity, "w-24")}
      {typed(t.packs, packs, setPacks, "w-48", "5 at 126; 20 at 456")}
      <button type="submit" className="btn btn-sm btn-neutral" disabled={wrong}>
        {t.addIt}
      </button>
    </form>
  );
}

/** A name for the entry that nothing else has. */
function freeId(name: string, taken: readonly string[]): string {
  const plain = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
  const stem = `own-${plain || "material"}`.slice(0, 45);
  for (let n = 1; ; n++) {
    const id = n === 1 ? stem : `${stem}-${n}`;
    if (!taken.includes(id)) return id;
  }
}
