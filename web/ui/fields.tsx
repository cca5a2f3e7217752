import { type ReactNode, useEffect, useId, useState } from "react";

interface NumberFieldProps {
  readonly label: string;
  readonly value: number;
  readonly unit?: string;
  readonly least: number;
  readonly most: number;
  readonly step?: number;
  readonly hint?: string;
  readonly onChange: (value: number) => void;
}

/** A number that is taken when it is right and complained about while it is not. */
export function NumberField({ label, value, unit, least, most, step = 1, hint, onChange }: NumberFieldProps) {
  const id = useId();
  const [text, setText] = useState(String(value));
  useEffect(() => setText((held) => (Number(held) === value ? held : String(Number(value.toFixed(4))))), [value]);
  const read = Number(text.replace(",", "."));
  const wrong = text.trim() === "" || !(read >= least && read <= most);
  return (
    <div className="py-1">
      <div className="flex items-center justify-between gap-3">
        <label htmlFor={id} className="quiet text-sm">
          {label}
        </label>
        <label className={`input input-sm w-32 ${wrong ? "input-error" : ""}`}>
          <input
            id={id}
            type="number"
            inputMode="decimal"
            className="text-right"
            value={text}
            min={least}
            max={most}
            step={step}
            aria-invalid={wrong}
            onChange={(event) => {
              setText(event.target.value);
              const next = Number(event.target.value.replace(",", "."));
              if (event.target.value.trim() !== "" && next >= least && next <= most && next !== value) onChange(next);
            }}
          />
          {unit && <span className="quiet text-xs">{unit}</span>}
        </label>
      </div>
      {wrong && <p className="mt-0.5 text-right text-sm text-error">{`From ${least} to ${most}.`}</p>}
      {!wrong && hint && <p className="quiet mt-0.5 text-right text-xs">{hint}</p>}
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
