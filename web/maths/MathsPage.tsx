/** How every figure is worked out, in one place: found by its name. */
import { useState } from "react";
import { Link } from "react-router";
import { DEFERENCE } from "../../core/materials/cautions.ts";
import { FORMULAS } from "./formulas.ts";

export function MathsPage() {
  const [filter, setFilter] = useState("");
  const wanted = filter.trim().toLowerCase();
  const shown = FORMULAS.filter(({ what, how }) => `${what} ${how}`.toLowerCase().includes(wanted));
  return (
    <main className="min-h-full bg-base-200">
      <div className="mx-auto max-w-4xl px-8 py-8">
        <header className="mb-5 flex flex-wrap items-end justify-between gap-4">
          <div>
            <Link to="/" className="font-stencil text-xl tracking-wide">
              RIMEFELL
            </Link>
            <h1 className="text-2xl font-semibold">The maths</h1>
          </div>
          <input
            type="search"
            className="input input-sm w-64"
            aria-label="Find a figure"
            placeholder="Find a figure"
            value={filter}
            onChange={(event) => setFilter(event.target.value)}
          />
        </header>
        <dl className="bg-base-100 px-6 py-4">
          {shown.map(({ what, how }) => (
            <div key={what} className="border-b border-base-300 py-3 last:border-b-0">
              <dt className="font-semibold">{what.charAt(0).toUpperCase() + what.slice(1)}</dt>
              <dd className="mt-1 text-sm">{how}</dd>
            </div>
          ))}
          {shown.length === 0 && <p className="quiet">No figure has that in its name.</p>}
        </dl>
        <p className="quiet mt-3 text-sm">{DEFERENCE}</p>
      </div>
    </main>
  );
}
