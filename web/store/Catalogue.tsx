/** What the workshop buys, by what it is: shipped entries with its own packs and prices, and entries of its own. */
import { useState } from "react";
import { FIGURES, type FigureKey, GROUPS, type Group } from "../../core/materials/entries/entry.ts";
import { HAZARDS } from "../../core/materials/entries/hazards.ts";
import type { StoredEntry } from "../../core/materials/stock.ts";
import { useShow } from "../lib/show.ts";
import { unitText } from "../ui/unit.ts";
import { AddEntry } from "./AddEntry.tsx";
import { messages } from "./messages.ts";
import { PacksForm } from "./PacksForm.tsx";
import { packsText } from "./packsText.ts";
import { Sheets } from "./Sheets.tsx";
import type { StoreProps } from "./storeProps.ts";

const t = messages.entries;

export function Catalogue({ store, change, entries }: StoreProps & { entries: readonly StoredEntry[] }) {
  const [filter, setFilter] = useState("");
  const [open, setOpen] = useState<string | null>(null);
  const wanted = filter.toLowerCase();
  const shown = entries.filter((entry) =>
    `${entry.name} ${entry.note} ${entry.supplier}`.toLowerCase().includes(wanted),
  );
  return (
    <section aria-label={messages.catalogue}>
      <div className="mb-2 flex flex-wrap items-center justify-between gap-2">
        <input
          type="search"
          className="input input-sm w-64"
          placeholder={messages.find}
          aria-label={messages.find}
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
        />
        <p className="quiet text-sm">{t.typical}</p>
      </div>
      {(Object.keys(GROUPS) as Group[]).map((group) => {
        const own = shown.filter((entry) => entry.group === group);
        if (own.length === 0) return null;
        return (
          <div key={group} className="mb-4">
            <h3 className="mb-1 border-b-2 border-base-content/70 font-semibold">{GROUPS[group]}</h3>
            <ul>
              {own.map((entry) => (
                <li key={entry.id} className="border-b border-base-300 py-1.5">
                  <EntryRow
                    entry={entry}
                    open={open === entry.id}
                    onOpen={() => setOpen(open === entry.id ? null : entry.id)}
                    {...{ store, change }}
                  />
                </li>
              ))}
            </ul>
          </div>
        );
      })}
      <AddEntry
        onAdd={(entry) => change({ ...store, own: [...store.own, entry] })}
        taken={entries.map(({ id }) => id)}
      />
    </section>
  );
}

interface EntryRowProps extends StoreProps {
  readonly entry: StoredEntry;
  readonly open: boolean;
  readonly onOpen: () => void;
}

function EntryRow({ entry, open, onOpen, store, change }: EntryRowProps) {
  const show = useShow();
  const { name, unit, packs, supplier, note, figures, hazards, isOwn, shippedNow } = entry;
  const told = (Object.keys(FIGURES) as FigureKey[]).filter((key) => figures[key] !== undefined);
  return (
    <>
      <button
        type="button"
        aria-expanded={open}
        className="flex w-full items-baseline gap-3 text-left"
        onClick={onOpen}
      >
        <span className="w-80 shrink-0 font-medium">
          {name} {isOwn && <span className="quiet text-xs font-normal">({t.own})</span>}
        </span>
        <span className="quiet grow text-sm">
          {packs
            .map(({ amount, priceMinor }) => `${amount}\u2009${unitText(unit)} ${show.money(priceMinor)}`)
            .join(", ")}
        </span>
        <span className="quiet text-sm">{supplier}</span>
      </button>
      {open && (
        <div className="mt-2 grid gap-6 pb-2 pl-4 md:grid-cols-2">
          <div className="text-sm">
            {told.map((key) => (
              <p key={key} className="flex justify-between gap-4">
                <span className="quiet">{FIGURES[key].name}</span>
                <span>{`${figures[key]} ${FIGURES[key].unit}`}</span>
              </p>
            ))}
            {note && <p className="mt-1">{note}</p>}
            {hazards.map((hazard) => (
              <p key={hazard} className="mt-1 border-l-4 border-warning pl-2">
                <b>{HAZARDS[hazard].name}.</b> {HAZARDS[hazard].protect}
              </p>
            ))}
          </div>
          <div>
            <PacksForm entry={entry} {...{ store, change }} />
            {isOwn && <Removal entry={entry} {...{ store, change }} />}
          </div>
          <Sheets material={entry.id} />
          {shippedNow && <p className="text-sm">{t.shippedNow(packsText(shippedNow))}</p>}
        </div>
      )}
    </>
  );
}

function Removal({ entry: { id, name }, store, change }: StoreProps & { entry: StoredEntry }) {
  const inUse = store.lots.some(({ material }) => material === id);
  return (
    <p className="mt-2 flex flex-wrap items-center gap-2 text-sm">
      <button
        type="button"
        className="btn btn-xs"
        disabled={inUse}
        onClick={() => change({ ...store, own: store.own.filter((each) => each.id !== id) })}
      >
        {t.remove(name)}
      </button>
      {inUse && <span className="quiet">{t.inUse}</span>}
    </p>
  );
}
