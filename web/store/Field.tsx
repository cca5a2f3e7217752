import type { ReactNode } from "react";

/** A control with its name over it. */
export function Field({ name, children }: { name: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: its control is what it is given.
    <label className="text-sm">
      <span className="quiet block">{name}</span>
      {children}
    </label>
  );
}
