/** How much of the lines runs through each kind of zone. */
import type { Jacket } from "../../jacket/jacket.ts";
import { type ZoneKind, zoneLengthsMm } from "../../survey/zones.ts";
import type { Sections } from "../proof/assemble.ts";
import { stage } from "./stage.ts";

export const zonesStage = stage({
  name: "zones",
  after: ["jacket", "sections"],
  reads: ({ zones }) => zones,
  progress: {},
  make: (
    zones,
    { jacket, sections }: { readonly jacket: Jacket; readonly sections: Sections },
  ): Readonly<Record<ZoneKind, number>> => zoneLengthsMm(zones, sections.drawn, jacket.thicknessMm),
});
