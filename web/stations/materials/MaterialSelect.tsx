/** What is taken in a place where a material is asked for: what the catalogue has of the kind, and the workshop's own. */
import { useContext } from "react";
import { entryOf, MATERIAL_IDS, type MaterialId, type MaterialKey, nameOf } from "../../../core/materials/catalogue.ts";
import { standsIn } from "../../../core/materials/chosen.ts";
import { isOwn, type OwnEntry } from "../../../core/materials/entries/own.ts";
import { messages } from "./messages.ts";
import { StoreContext } from "./storeHeld.ts";

interface MaterialSelectProps {
  readonly label: string;
  /** What is usual there: what stands on the same shelf and is counted alike may be taken. */
  readonly usual: MaterialId;
  readonly value: MaterialKey | null;
  /** Own entries that the plan keeps. */
  readonly kept: readonly OwnEntry[];
  /** A first choice that takes nothing of its own; none where it is left out. */
  readonly none?: string;
  readonly className?: string;
  /** @param entry where an own one was chosen */
  readonly onChoose: (id: MaterialKey | null, entry: OwnEntry | null) => void;
}

export function MaterialSelect({ label, usual, value, kept, none, className = "", onChoose }: MaterialSelectProps) {
  const store = useContext(StoreContext);
  const fits = (entry: Parameters<typeof standsIn>[0]) => standsIn(entryOf(usual), entry);
  const shipped = MATERIAL_IDS.filter((id) => fits(entryOf(id)));
  // As the store has them now; what it no longer has, as the plan keeps it.
  const gone = kept.filter(({ id }) => !store.own.some((each) => each.id === id));
  const own = [...store.own, ...gone].filter(fits);
  const option = (id: string) => (
    <option key={id} value={id}>
      {nameOf(id, own)}
    </option>
  );
  return (
    <select
      className={`select select-sm ${className}`}
      aria-label={label}
      value={value ?? ""}
      onChange={(event) => {
        const id = event.target.value as MaterialKey | "";
        if (id === "") onChoose(null, null);
        else onChoose(id, isOwn(id) ? (own.find((each) => each.id === id) ?? null) : null);
      }}
    >
      {none !== undefined && <option value="">{none}</option>}
      {shipped.map(option)}
      {own.length > 0 && <optgroup label={messages.buildUp.own}>{own.map(({ id }) => option(id))}</optgroup>}
    </select>
  );
}
