import { useEffect, useMemo } from "react";
import { sectionCount, useShow } from "../lib/show.ts";
import { Figure } from "../ui/Figure.tsx";
import type { FirstGlance } from "../workers/geometry.ts";

/** What a scan comes to at a first glance, while it is being put on the shelf. */
export function GlanceCard({ glance }: { glance: FirstGlance & { readonly picture: Blob | null } }) {
  const show = useShow();
  const picture = useMemo(() => glance.picture && URL.createObjectURL(glance.picture), [glance.picture]);
  useEffect(() => () => (picture ? URL.revokeObjectURL(picture) : undefined), [picture]);
  return (
    <section
      aria-label="At a first glance"
      className="mb-8 flex w-fit items-center gap-6 border-b-[6px] border-base-300 bg-base-100 pr-8"
    >
      <span className="block aspect-[6/5] h-56">
        {picture && <img src={picture} alt="" className="h-full object-contain" />}
      </span>
      <div className="w-56">
        <h2 className="mb-1 text-lg font-semibold">At a first glance</h2>
        <Figure label="Height">≈ {show.length(glance.heightMm)}</Figure>
        <Figure label="Parts in">≈ {sectionCount(glance.sections)}</Figure>
        <Figure label="Silicone">≈ {show.mass(glance.siliconeG)}</Figure>
        <Figure label="Cost">≈ {show.money(glance.costMinor)}</Figure>
      </div>
    </section>
  );
}
