/** What must not touch what, and has no answer yet, beside the step where it bites. */
import type { Meeting } from "../../core/materials/touching/index.ts";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import { openTouching } from "../../core/plan/results/cautions.ts";
import { Caution } from "../ui/fields.tsx";

export function OpenCautions({ document, places }: { document: PlanDocument; places: readonly Meeting[] }) {
  return openTouching(document, places).map((text) => <Caution key={text}>{text}</Caution>);
}
