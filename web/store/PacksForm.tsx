/** What a material costs the workshop. */
import { useState } from "react";
import { MATERIALS, type MaterialId } from "../../core/materials/catalogue.ts";
import type { StoredEntry } from "../../core/materials/stock.ts";
import { unitText } from "../ui/unit.ts";
import { messages } from "./messages.ts";
import { packsText, readPacks } from "./packsText.ts";
import type { StoreProps } from "./storeProps.ts";

const t = messages.entries;

/** The packs that an entry of the store is sold in, with their prices and who sells them, to be changed. */
export function PacksForm({ entry, store, change }: StoreProps & { entry: StoredEntry }) {
  const { id, isOwn } = entry;
  const [text, setText] = useState(packsText(entry.packs));
  const [supplier, setSupplier] = useState(entry.supplier);
  const packs = readPacks(text);
  const save = () => {
    if (!packs) return;
    const own = { packs, supplier: supplier.trim() };
    if (isOwn) change({ ...store, own: store.own.map((each) => (each.id === id ? { ...each, ...own } : each)) });
    else {
      const shipped = MATERIALS[id as MaterialId].packs;
      change({ ...store, edits: { ...store.edits, [id]: { ...own, shipped } } });
    }
  };
  const reset = () => {
    const { [id]: _gone, ...edits } = store.edits;
    change({ ...store, edits });
    setText(packsText(MATERIALS[id as MaterialId].packs));
    setSupplier("");
  };
  return (
    <div className="text-sm">
      <label className="block">
        <span className="quiet block">{`${t.packs}, ${unitText(entry.unit)}`}</span>
        <input
          className={`input input-sm w-full ${packs ? "" : "input-error"}`}
          aria-invalid={!packs}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <p className={packs ? "quiet text-xs" : "text-error"}>{packs ? t.packsHint : t.wrongPacks}</p>
      <label className="mt-1 block">
        <span className="quiet block">{t.supplier}</span>
        <input
          className="input input-sm w-full"
          maxLength={80}
          value={supplier}
          onChange={(event) => setSupplier(event.target.value)}
        />
      </label>
      <span className="mt-2 flex flex-wrap items-center gap-2">
        <button type="button" className="btn btn-xs btn-neutral" disabled={!packs} onClick={save}>
          {t.save}
        </button>
        {store.edits[id] && (
          <button type="button" className="btn btn-xs" onClick={reset}>
            {t.reset}
          </button>
        )}
      </span>
    </div>
  );
}
