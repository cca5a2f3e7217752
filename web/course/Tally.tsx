import { ArrowDown, ArrowUp } from "lucide-react";
import { useEffect, useState } from "react";
import type { PlanDocument } from "../../core/plan/document/document.ts";
import { planCautions } from "../../core/plan/results/cautions.ts";
import type { PlanFigures } from "../../core/plan/results/figures.ts";
import { inLine, nextWorking, type Task, TYPICAL_WEEK } from "../../core/schedule/line.ts";
import { minutesThisWeek } from "../lib/clock.ts";
import { useShow } from "../lib/show.ts";
import type { Planning } from "../planning/usePlanning.ts";

interface Entry {
  readonly name: string;
  readonly value: number;
  readonly text: (value: number) => string;
  /** How a difference is put, where not like the value itself. */
  readonly change?: (value: number) => string;
  /** More of it is worse. */
  readonly dear: boolean;
  /** It counts bolts, keys and straps. */
  readonly counts?: boolean;
}

/** When the mould is ready if the work begins with the next working hour, minutes from the Monday of this week. */
function readyMin(tasks: readonly Task[]): number {
  const timed = inLine(tasks, minutesThisWeek());
  return timed.length === 0 ? 0 : nextWorking(timed[timed.length - 1].readyMin, TYPICAL_WEEK);
}

const SHOWN_FOR_MS = 15_000;

/** Always there: what the plan comes to, and what the last edit changed. */
export function Tally({ planning, document }: { planning: Planning; document: PlanDocument }) {
  const show = useShow();
  const { bundle, glance, progress } = planning;
  // While something is moved: what it comes to at a glance, against the plan as it stood.
  const before = glance ? (bundle?.figures ?? null) : planning.before;
  const quality = glance ? "coarse" : planning.quality;
  const [fresh, setFresh] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each new result shows its differences for a while.
  useEffect(() => {
    setFresh(true);
    const timer = setTimeout(() => setFresh(false), SHOWN_FOR_MS);
    return () => clearTimeout(timer);
  }, [bundle, glance]);
  const entries = (figures: PlanFigures): Entry[] => [
    { name: "Sections", value: figures.report.sections.length, text: String, dear: true },
    { name: "Heaviest", value: Math.max(...figures.takeoff.sectionMassesG), text: show.mass, dear: true },
    { name: "Silicone", value: figures.takeoff.siliconeG, text: show.mass, dear: true },
    { name: "Fill", value: figures.takeoff.fillG, text: show.mass, dear: true },
    { name: "Shell", value: figures.takeoff.shellG, text: show.mass, dear: true },
    { name: "Parting line", value: figures.report.partingLengthMm, text: show.length, dear: true },
    { name: "Hands", value: figures.takeoff.handsMin, text: show.hours, dear: true },
    {
      name: "Ready to cast",
      value: readyMin(figures.takeoff.tasks),
      text: show.day,
      change: show.span,
      dear: true,
    },
    { name: "Cost", value: figures.takeoff.costMinor, text: show.money, dear: true, counts: true },
    { name: "Cautions", value: planCautions(figures, document, show).length, text: String, dear: true },
  ];
  const now = bundle ? entries(glance ?? bundle.figures) : null;
  const past = before && fresh ? entries(before) : null;
  return (
    <section
      className="flex h-[4.5rem] shrink-0 items-stretch border-t-2 border-base-content/80 bg-base-100 max-[1100px]:h-32"
      aria-label="Tally"
      data-testid="tally"
      data-quality={quality ?? "none"}
      data-counted={planning.isCounted}
    >
      <ul className="flex grow items-stretch divide-x divide-base-300 overflow-x-auto max-[1100px]:grid max-[1100px]:grid-cols-5 max-[1100px]:overflow-y-auto">
        {now?.map((entry, k) => (
          <li
            key={entry.name}
            className={`flex min-w-24 grow flex-col justify-center px-3 ${quality === "coarse" ? "opacity-70" : ""}`}
          >
            <span className="quiet text-xs leading-tight">{entry.name}</span>
            <span className="text-lg leading-tight font-semibold whitespace-nowrap" data-testid={`tally-${entry.name}`}>
              {(quality === "coarse" && k > 0) || (entry.counts && !planning.isCounted) ? "≈ " : ""}
              {entry.text(entry.value)}
            </span>
            <Difference entry={entry} past={past?.[k]} />
          </li>
        )) ?? <li className="quiet flex items-center px-5">The tally appears with the first answer.</li>}
      </ul>
      {progress && (
        <div className="flex w-56 flex-col justify-center gap-1 border-l border-base-300 px-4" role="status">
          <span className="quiet flex justify-between text-xs">
            <span>{STAGE_NAMES[progress.stage] ?? progress.stage}</span>
            <button type="button" className="underline" onClick={planning.cancel}>
              Stop
            </button>
          </span>
          <progress className="progress progress-primary w-full" value={progress.fraction} max={1} />
        </div>
      )}
    </section>
  );
}

const STAGE_NAMES: Readonly<Record<string, string>> = {
  read: "Reading the scan",
  repair: "Mending the scan",
  field: "Measuring round the piece",
  jacket: "Laying the jacket",
  survey: "Looking along the pulls",
  parting: "Finding the line",
  compare: "Comparing plans",
  remedies: "Trying what would free it",
};

const ARROW = { "aria-hidden": true, size: 12, className: "inline align-[-0.1em]" } as const;

function Difference({ entry, past }: { entry: Entry; past: Entry | undefined }) {
  const change = past ? entry.value - past.value : 0;
  const size = (entry.change ?? entry.text)(Math.abs(change));
  if (!past || /^[^1-9]*$/.test(size)) return <span className="h-4 text-xs" aria-hidden="true" />;
  const more = change > 0;
  return (
    <span
      className={`h-4 text-xs font-medium whitespace-nowrap ${more === entry.dear ? "text-warning" : "text-success"}`}
      data-testid="tally-difference"
    >
      {more ? <ArrowUp {...ARROW} /> : <ArrowDown {...ARROW} />}
      {more ? "+" : "−"}
      {size}
    </span>
  );
}
