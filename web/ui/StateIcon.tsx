import { CircleCheck, CircleDashed, TriangleAlert } from "lucide-react";

/** How things stand, told by shape as well as by colour. */
export type Standing = "set" | "look" | "working";

const LOOKS = {
  set: { Icon: CircleCheck, name: "set", tone: "text-success" },
  look: { Icon: TriangleAlert, name: "needs a look", tone: "text-warning" },
  working: { Icon: CircleDashed, name: "being worked out", tone: "quiet" },
} as const;

/** @param silent where the words beside it say the same */
export function StateIcon({ standing, silent = false }: { standing: Standing; silent?: boolean }) {
  const { Icon, name, tone } = LOOKS[standing];
  const own = silent ? { "aria-hidden": true } : { role: "img", "aria-label": name };
  return (
    <span className={`inline-block shrink-0 align-[-0.15em] ${tone}`} title={silent ? undefined : name} {...own}>
      <Icon aria-hidden="true" size={16} strokeWidth={2.4} />
    </span>
  );
}
