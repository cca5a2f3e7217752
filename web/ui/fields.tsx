import { type ReactNode, useEffect, useId, useRef, useState } from "react";

interface NumberFieldProps {
  readonly label: string;
  readonly value: number;
  readonly unit?: string;
  readonly least: number;
  readonly most: number;
  readonly step?: number;
  readonly hint?: string;
  /** Reads what was typed into the field's own unit; null where it cannot be read. Plain numbers where it is left out. */
  readonly read?: (text: string) => number | null;
  readonly onChange: (value: number) => void;
}

function plainNumber(text: string): number | null {
  const value = Number(text.replace(",", "."));
  return text.trim() === "" || Number.isNaN(value) ? null : value;
}

/** No more figures than anybody would type. */
const shortened = (value: number): string => String(Number(value.toFixed(4)));

/**
 * A number that is taken when it is right and complained about while it is not. Where it may be typed with a unit, or as
 * a fraction, what was understood is shown.
 */
export function NumberField(props: NumberFieldProps) {
  const { label, value, unit, least, most, step = 1, hint, read = plainNumber, onChange } = props;
  const id = useId();
  const [text, setText] = useState(String(value));
  const reading = useRef(read);
  reading.current = read;
  useEffect(
    () => setText((held) => (Math.abs((reading.current(held) ?? Number.NaN) - value) < 1e-3 ? held : shortened(value))),
    [value],
  );
  const typed = read(text);
  const wrong = typed === null || !(typed >= least && typed <= most);
  const understood = !wrong && plainNumber(text) === null;
  const take = (next: number) => {
    if (next >= least && next <= most && next !== value) onChange(next);
  };
  const stepBy = (steps: number) => {
    const next = Math.min(most, Math.max(least, Number(((typed ?? value) + steps * step).toFixed(6))));
    setText(shortened(next));
    take(next);
  };
  return (
    <div className="py-1">
      <div className="flex items-center justify-between gap-3">
        <label htmlFor={id} className="quiet text-sm">
          {label}
        </label>
        <label className={`input input-sm w-32 ${wrong ? "input-error" : ""}`}>
          <input
            id={id}
            type="text"
            role="spinbutton"
            inputMode="decimal"
            autoComplete="off"
            className="text-right"
            value={text}
            aria-valuemin={least}
            aria-valuemax={most}
            aria-valuenow={typed ?? undefined}
            aria-invalid={wrong}
            aria-describedby={`${id}-told`}
            onChange={(event) => {
              setText(event.target.value);
              const next = read(event.target.value);
              if (next !== null) take(next);
            }}
            onKeyDown={(event) => {
              if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
              event.preventDefault();
              stepBy((event.key === "ArrowUp" ? 1 : -1) * (event.shiftKey ? 10 : 1));
            }}
          />
          {unit && <span className="quiet text-xs">{unit}</span>}
        </label>
      </div>
      <div id={`${id}-told`} className="text-right">
        {wrong && <p className="mt-0.5 text-sm text-error">{`From ${shortened(least)} to ${shortened(most)}.`}</p>}
        {understood && <p className="mt-0.5 text-xs">{`= ${[shortened(typed), unit].join(" ").trim()}`}</p>}
        {!wrong && hint && <p className="quiet mt-0.5 text-xs">{hint}</p>}
      </div>
    </div>
  );
}

/** One of a few, shown side by side. */
export function Choice<T extends string | number>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly { value: T; name: string }[];
  onChange: (value: T) => void;
}) {
  return (
    <fieldset className="py-1">
      <legend className="quiet mb-1 text-sm">{label}</legend>
      <div className="join flex">
        {options.map((option) => (
          <button
            key={String(option.value)}
            type="button"
            aria-pressed={option.value === value}
            className={`btn btn-sm join-item grow px-2 ${option.value === value ? "btn-neutral" : "border-base-300 bg-base-100"}`}
            onClick={() => onChange(option.value)}
          >
            {option.name}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

export function Part({ title, children, aside }: { title: string; children: ReactNode; aside?: ReactNode }) {
  return (
    <section className="border-b border-base-300 px-5 py-4 last:border-b-0">
      <header className="mb-1.5 flex items-baseline justify-between gap-2">
        <h3 className="font-semibold">{title}</h3>
        {aside}
      </header>
      {children}
    </section>
  );
}

export function More({ title, children }: { title: string; children: ReactNode }) {
  return (
    <details className="mt-2">
      <summary className="cursor-pointer text-sm underline decoration-dotted underline-offset-4">{title}</summary>
      <div className="mt-1">{children}</div>
    </details>
  );
}

export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="my-1 flex gap-2 border-l-4 border-warning bg-base-200 px-3 py-1.5 text-sm">
      <span aria-hidden="true" className="font-bold text-warning">
        !
      </span>
      <span>{children}</span>
    </p>
  );
}
