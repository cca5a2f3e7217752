import type { ReactNode } from "react";
import type { Working } from "../../core/materials/property.ts";

/** A label and its figure on one line. With a working, the figure opens to show how it was worked out. */
export function Figure({ label, children, working }: { label: string; children: ReactNode; working?: Working }) {
  const line = (
    <span className="flex w-full items-baseline justify-between gap-3">
      <span className="quiet text-sm">{label}</span>
      <span className="text-right font-medium">{children}</span>
    </span>
  );
  if (!working) return <div className="py-1">{line}</div>;
  return (
    <details className="group py-1">
      <summary className="flex cursor-pointer list-none items-baseline gap-1 decoration-dotted underline-offset-4 hover:underline">
        {line}
      </summary>
      <WorkingNote working={working} />
    </details>
  );
}

export function WorkingNote({ working }: { working: Working }) {
  return (
    <div className="quiet mt-1 max-w-md border-l-2 border-base-300 pl-3 text-sm">
      <p className="italic">{working.formula}</p>
      <ul>
        {working.inputs.map((input) => (
          <li key={input.name} className="flex justify-between gap-3">
            <span>{input.name}</span>
            <span>
              {roundedFigure(input.value)} {input.unit}
            </span>
          </li>
        ))}
      </ul>
      <a className="text-xs underline" href="/maths" target="_blank" rel="noreferrer">
        All of the maths
      </a>
    </div>
  );
}

export function roundedFigure(value: number): string {
  return value.toLocaleString("en-GB", { maximumSignificantDigits: 4 });
}
