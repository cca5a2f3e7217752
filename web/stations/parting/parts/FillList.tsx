import { type FillChoice, type FillPart, withChoice } from "../../../../core/release/fills.ts";
import { usePlan } from "../../../document/planStore.ts";
import { useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { More } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";

const MADE_OF: Record<FillChoice["kind"], string> = {
  silicone: messages.fillList.siliconeWithTheThickCoats,
  clay: messages.fillList.clayOverTheJacket,
  web: messages.fillList.webOfClayBeforeTheFirst,
  plug: messages.fillList.hardPlugCastBeforehand,
  open: messages.fillList.leftOpen,
};
const KINDS = Object.keys(MADE_OF) as FillChoice["kind"][];

/** What a fill costs, and what it means for the jacket. */
function meaning({ kind, onJacketMm2 }: FillPart, costMinor: number, show: ReturnType<typeof useShow>): string {
  const stands = messages.fillList.standsOff(show.area(onJacketMm2));
  const costs = show.money(costMinor);
  if (kind === "silicone") return costs;
  if (kind === "web") return messages.fillList.webWork(costs);
  return kind === "clay" ? messages.fillList.work(costs, stands) : messages.fillList.castWork(costs, stands);
}

/** The fills part by part: how much, where, and made of what; each may be made of something else, or left open. */
export function FillList({
  parts,
  where,
  costsMinor,
  choices,
}: {
  parts: readonly FillPart[];
  /** A place of the piece in words. */
  where: (at: FillPart["at"]) => string;
  /** What each of them costs, in their order. */
  costsMinor: readonly number[];
  choices: readonly FillChoice[];
}) {
  const show = useShow();
  const { stage } = useStage();
  const edit = usePlan((plan) => plan.edit);
  const open = choices.filter(({ kind }) => kind === "open");
  if (parts.length === 0 && open.length === 0) return null;
  const choose = (at: FillChoice["at"], kind: FillChoice["kind"] | null) =>
    edit((plan) => ({ ...plan, parting: { ...plan.parting, fills: withChoice(plan.parting.fills, at, kind) } }));
  return (
    <More title={messages.fillList.title(parts.length, open.length)}>
      <ul className="text-sm" data-testid="fills">
        {parts.map((part, k) => {
          const { kind, chosen, volumeMm3, thickMm, at } = part;
          return (
            <li key={at.join()} className="py-1">
              <div className="flex items-baseline justify-between gap-2">
                <button
                  type="button"
                  className="text-left underline decoration-dotted underline-offset-4"
                  onClick={() => stage?.comeTo(at)}
                >
                  {messages.fillList.fill(k + 1, where(at))}
                </button>
                <span className="shrink-0">{messages.fillList.size(show.volume(volumeMm3), show.length(thickMm))}</span>
              </div>
              <p className="quiet text-xs">{meaning(part, costsMinor[k] ?? 0, show)}</p>
              <select
                className="select select-xs mt-1 w-full"
                aria-label={messages.fillList.madeOf(k + 1)}
                value={kind}
                onChange={(event) => choose(at, event.target.value as FillChoice["kind"])}
              >
                {KINDS.map((each) => (
                  <option key={each} value={each}>
                    {each === kind && chosen ? messages.fillList.chosen(MADE_OF[each]) : MADE_OF[each]}
                  </option>
                ))}
              </select>
            </li>
          );
        })}
        {open.map(({ at }) => (
          <li key={at.join()} className="flex items-baseline justify-between gap-2 py-1">
            <button
              type="button"
              className="text-left underline decoration-dotted underline-offset-4"
              onClick={() => stage?.comeTo(at)}
            >
              {messages.fillList.openAt(where(at))}
            </button>
            <button type="button" className="btn btn-xs" onClick={() => choose(at, null)}>
              {messages.fillList.fillItAgain}
            </button>
          </li>
        ))}
      </ul>
    </More>
  );
}
