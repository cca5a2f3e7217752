/** A list of lots taken in: shown with what would change and what is wrong, before anything is. */
import { useState } from "react";
import { store as storeSchema } from "../../contract/store.ts";
import type { StoredEntry } from "../../core/materials/stock.ts";
import { type ReadStock, readStock } from "../../core/materials/stockTable.ts";
import { messages } from "./messages.ts";
import type { StoreProps } from "./storeProps.ts";

const t = messages.table;

export function TakeIn({ store, change, entries }: StoreProps & { entries: readonly StoredEntry[] }) {
  const [read, setRead] = useState<ReadStock | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const nameOf = (id: string) => entries.find((entry) => entry.id === id)?.name ?? id;
  const takeList = async (file: File) => {
    setProblem(null);
    setRead(readStock(await file.text(), store.lots, entries, () => crypto.randomUUID()));
  };
  const takeStore = async (file: File) => {
    setRead(null);
    const next = storeSchema.safeParse(jsonOf(await file.text()));
    setProblem(next.success ? null : t.unreadable);
    if (next.success) change(next.data);
  };
  const picker = (name: string, accept: string, take: (file: File) => Promise<void>) => (
    <label className="btn btn-sm">
      {name}
      <input
        type="file"
        accept={accept}
        className="sr-only"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) void take(file);
          event.target.value = "";
        }}
      />
    </label>
  );
  return (
    <div className="border-t border-base-300 pt-4">
      <span className="flex gap-2">
        {picker(t.take, ".csv,text/csv", takeList)}
        {picker(t.takeAll, ".json,application/json", takeStore)}
      </span>
      {problem && (
        <p role="alert" className="mt-2 text-sm text-error">
          {problem}
        </p>
      )}
      {read && (
        <div className="mt-3 border-l-4 border-accent bg-base-200 px-4 py-3" data-testid="stock-preview">
          <h3 className="font-semibold">{t.preview}</h3>
          <p className="text-sm">
            {[t.comes(read.comes.length), t.changes(read.changes.length), t.same(read.same)].join("; ")}.
          </p>
          <ul className="mt-1 list-disc pl-5 text-sm">
            {read.comes.map((lot) => (
              <li key={lot.id}>{`+ ${nameOf(lot.material)}: ${lot.amount}`}</li>
            ))}
            {read.changes.map(({ from, to }) => (
              <li key={to.id}>{`${nameOf(to.material)}: ${from.amount} → ${to.amount}`}</li>
            ))}
          </ul>
          {read.problems.length > 0 && (
            <>
              <ul className="mt-2 text-sm text-error">
                {read.problems.map(({ line, what }) => (
                  <li key={`${line} ${what}`}>{t.problem(line, what)}</li>
                ))}
              </ul>
              <p className="quiet text-sm">{t.left}</p>
            </>
          )}
          <span className="mt-2 flex gap-2">
            <button
              type="button"
              className="btn btn-sm btn-neutral"
              disabled={read.comes.length + read.changes.length === 0}
              onClick={() => {
                change({ ...store, lots: read.lots });
                setRead(null);
              }}
            >
              {t.apply}
            </button>
            <button type="button" className="btn btn-sm" onClick={() => setRead(null)}>
              {t.cancel}
            </button>
          </span>
        </div>
      )}
    </div>
  );
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
