/** The ways that the jacket would nearly fit its shell beside the right one. Of settled plans alone. */
import type { Jacket } from "../../jacket/jacket.ts";
import { type OtherWay, otherWays } from "../../keys/whichWay.ts";
import { bareBody } from "../proof/freeing.ts";
import { stage } from "./stage.ts";

export const waysStage = stage({
  name: "ways",
  after: ["jacket"],
  reads: (_document, { effort }) => ({ settled: effort.order }),
  progress: {},
  make: ({ settled }, { jacket }: { readonly jacket: Jacket }, ctx): OtherWay[] =>
    settled ? otherWays(bareBody(jacket, ctx), jacket.mesh) : [],
});
