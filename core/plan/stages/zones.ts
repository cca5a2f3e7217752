/** How much of the lines runs through each kind of zone. */
import type { Jacket } from "../../jacket/jacket.ts";
import { type ZoneKind, zoneLengthsMm } from "../../survey/zones.ts";
import type { ProvenParting } from "../proof/parting.ts";
import { stage } from "./stage.ts";

export const zonesStage = stage({
  name: "zones",
  after: ["jacket", "parting"],
  reads: ({ zones }) => zones,
  progress: {},
  make: (
    zones,
    { jacket, parting }: { readonly jacket: Jacket; readonly parting: ProvenParting },
  ): Readonly<Record<ZoneKind, number>> => zoneLengthsMm(zones, parting.drawn, jacket.thicknessMm),
});
