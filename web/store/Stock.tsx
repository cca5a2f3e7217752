/** Lots on the shelves: added, weighed again, taken out; as a table out and in again. */
import { X } from "lucide-react";
import { useState } from "react";
import { type Lot, type LotState, lotState, type StoredEntry } from "../../core/materials/stock.ts";
import { stockCsv } from "../../core/materials/stockTable.ts";
import { parseAmount } from "../../core/units/index.ts";
import { today } from "../lib/dates.ts";
import { saveFile } from "../lib/saveFile.ts";
import { unitText } from "../ui/unit.ts";
import { Field } from "./Field.tsx";
import { messages } from "./messages.ts";
import type { StoreProps } from "./storeProps.ts";
import { TakeIn } from "./TakeIn.tsx";

const t = messages.lots;

export function Stock({ store, change, entries }: StoreProps & { entries: readonly StoredEntry[] }) {
  const [filter, setFilter] = useState("");
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const nameOf = ({ material }: Lot) => byId.get(material)?.name ?? material;
  const set = (lots: readonly Lot[]) => change({ ...store, lots });
  const shown = store.lots.filter((lot) => `${nameOf(lot)} ${lot.place}`.toLowerCase().includes(filter.toLowerCase()));
  return (
    <section aria-label={messages.stock}>
      <div className="mb-3 flex flex-wrap items-center justify-between gap-2">
        <input
          type="search"
          className="input input-sm w-64"
          placeholder={messages.find}
          aria-label={messages.find}
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
        />
        <span className="flex gap-1">
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => saveFile("stock.csv", stockCsv(store.lots, entries), "text/csv")}
          >
            {messages.table.out}
          </button>
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => saveFile("store.json", `${JSON.stringify(store, null, 2)}\n`, "application/json")}
          >
            {messages.table.all}
          </button>
        </span>
      </div>
      {store.lots.length === 0 ? (
        <p className="quiet mb-4">{t.empty}</p>
      ) : (
        <table className="table table-sm mb-4">
          <thead>
            <tr>
              {[t.material, t.amount, t.opened, t.expires, t.place, t.state, ""].map((head) => (
                <th key={head} className="text-base-content">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((lot) => (
              <LotRow
                key={lot.id}
                lot={lot}
                name={nameOf(lot)}
                unit={byId.get(lot.material)?.unit ?? ""}
                state={lotState(lot, byId.get(lot.material), today())}
                onAmount={(amount) => set(store.lots.map((each) => (each.id === lot.id ? { ...each, amount } : each)))}
                onRemove={() => set(store.lots.filter(({ id }) => id !== lot.id))}
              />
            ))}
          </tbody>
        </table>
      )}
      <AddLot entries={entries} onAdd={(lot) => set([...store.lots, lot])} />
      <TakeIn {...{ store, change, entries }} />
    </section>
  );
}

interface LotRowProps {
  readonly lot: Lot;
  readonly name: string;
  readonly unit: string;
  readonly state: LotState;
  readonly onAmount: (amount: number) => void;
  readonly onRemove: () => void;
}

function LotRow({ lot, name, unit, state, onAmount, onRemove }: LotRowProps) {
  const [text, setText] = useState(String(lot.amount));
  const read = parseAmount(text, unit);
  const wrong = read === null;
  const leave = () => {
    setText(String(read ?? lot.amount));
    if (read !== null && read !== lot.amount) onAmount(read);
  };
  return (
    <tr className={lot.amount === 0 ? "opacity-60" : ""}>
      <td>{name}</td>
      <td className="whitespace-nowrap">
        <input
          className={`input input-xs w-20 text-right ${wrong ? "input-error" : ""}`}
          aria-label={t.amountOf(name)}
          aria-invalid={wrong}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={leave}
        />{" "}
        {unitText(unit)}
      </td>
      <td className="whitespace-nowrap">{lot.openedOn ?? t.closed}</td>
      <td className="whitespace-nowrap">{lot.expiresOn ?? ""}</td>
      <td>{lot.place}</td>
      <td className={state.kind === "good" ? "" : "font-medium text-warning"}>
        {state.kind === "old" ? t.old(state.months) : t[state.kind]}
      </td>
      <td>
        <button type="button" className="btn btn-ghost btn-xs px-1" aria-label={t.remove(name)} onClick={onRemove}>
          <X aria-hidden="true" size={14} />
        </button>
      </td>
    </tr>
  );
}

function AddLot({ entries, onAdd }: { entries: readonly StoredEntry[]; onAdd: (lot: Lot) => void }) {
  const [material, setMaterial] = useState(entries[0]?.id ?? "");
  const [amount, setAmount] = useState("");
  const [opened, setOpened] = useState("");
  const [expires, setExpires] = useState("");
  const [place, setPlace] = useState("");
  const unit = entries.find(({ id }) => id === material)?.unit ?? "";
  const read = parseAmount(amount, unit);
  const wrong = amount.trim() !== "" && read === null;
  const understood = read !== null && String(read) !== amount.trim();
  const dated = (value: string, set: (value: string) => void) => (
    <input type="date" className="input input-sm w-36" value={value} onChange={(event) => set(event.target.value)} />
  );
  return (
    <form
      className="mb-4 flex flex-wrap items-end gap-3 border-t border-base-300 pt-4"
      aria-label={t.add}
      onSubmit={(event) => {
        event.preventDefault();
        if (read === null) return;
        const dates = { openedOn: opened || null, expiresOn: expires || null };
        onAdd({ id: crypto.randomUUID(), material, amount: read, place: place.trim(), ...dates });
        setAmount("");
      }}
    >
      <Field name={t.material}>
        <select
          className="select select-sm w-64"
          value={material}
          onChange={(event) => setMaterial(event.target.value)}
        >
          {entries.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </Field>
      <Field name={`${t.amount}, ${unitText(unit)}`}>
        <input
          className={`input input-sm w-24 text-right ${wrong ? "input-error" : ""}`}
          inputMode="decimal"
          value={amount}
          onChange={(event) => setAmount(event.target.value)}
        />
      </Field>
      <Field name={t.opened}>{dated(opened, setOpened)}</Field>
      <Field name={t.expires}>{dated(expires, setExpires)}</Field>
      <Field name={t.place}>
        <input
          className="input input-sm w-36"
          value={place}
          maxLength={120}
          onChange={(event) => setPlace(event.target.value)}
        />
      </Field>
      <button type="submit" className="btn btn-sm btn-neutral" disabled={amount.trim() === "" || wrong}>
        {t.save}
      </button>
      {wrong && <p className="w-full text-sm text-error">{t.wrongAmount}</p>}
      {understood && <p className="w-full text-sm">{t.understood(Number(read.toFixed(4)), unitText(unit))}</p>}
    </form>
  );
}
