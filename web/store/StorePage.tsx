/** The workshop's store: what is on its shelves, and the catalogue it buys from. */
import { useState } from "react";
import { Link } from "react-router";
import { type Store, storedEntries } from "../../core/materials/stock.ts";
import { useSaveStore, useStore } from "../lib/queries.ts";
import { Catalogue } from "./Catalogue.tsx";
import { messages } from "./messages.ts";
import { Stock } from "./Stock.tsx";

const TABS = ["stock", "catalogue"] as const;

export function StorePage() {
  const { data, error } = useStore();
  const save = useSaveStore();
  const [tab, setTab] = useState<(typeof TABS)[number]>("stock");
  if (!data) return <p className="p-8">{error ? error.message : messages.fetching}</p>;
  const { store, revision } = data;
  const change = (next: Store) => save.mutate({ store: next, revision });
  const entries = storedEntries(store);
  return (
    <main className="min-h-full bg-base-200">
      <div className="mx-auto max-w-6xl px-8 py-8">
        <header className="mb-5 flex flex-wrap items-end justify-between gap-4">
          <div>
            <Link to="/" className="font-stencil text-xl tracking-wide">
              RIMEFELL
            </Link>
            <h1 className="text-2xl font-semibold">{messages.title}</h1>
          </div>
          <div className="flex items-center gap-3">
            <div role="tablist" className="join" aria-label={messages.title}>
              {TABS.map((name) => (
                <button
                  key={name}
                  type="button"
                  role="tab"
                  aria-selected={tab === name}
                  className={`btn join-item ${tab === name ? "btn-neutral" : "border-base-300 bg-base-100"}`}
                  onClick={() => setTab(name)}
                >
                  {messages[name]}
                </button>
              ))}
            </div>
            <Link to="/" className="btn btn-ghost">
              {messages.back}
            </Link>
          </div>
        </header>
        {save.error && (
          <p role="alert" className="mb-4 border-l-4 border-error bg-base-100 px-3 py-2">
            {save.error.message}
          </p>
        )}
        <div className="bg-base-100 px-5 py-4">
          {tab === "stock" ? <Stock {...{ store, change, entries }} /> : <Catalogue {...{ store, change, entries }} />}
        </div>
      </div>
    </main>
  );
}
