import { ArrowRight } from "lucide-react";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { GeometryReport } from "../../../../core/plan/results/report.ts";
import { useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { Caution } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";

/** A section is on its way for this long, ms. */
const SECTION_MS = 1300;

interface TakeApartProps {
  readonly order: GeometryReport["order"];
  /** Numbers of the sections that are held. */
  readonly locked: readonly number[];
  /** Told as the play-back moves: the share each section has gone, by number. */
  readonly onMove: (shares: Readonly<Record<number, number>>) => void;
  /** Told as the play-back moves: how far the piece is raised, mm, and which sections are still on it. */
  readonly onRaise: (byMm: number, numbers: readonly number[]) => void;
}

/** How far a section that is stuck is seen to move before it stops, of its way out. */
const STUCK = 0.03;

/**
 * Plays the taking apart, in order, and backwards the building. It stops where a section meets the jacket or where
 * sections block each other. The space bar starts and stops it.
 */
export function TakeApart({ order, locked, onMove, onRaise }: TakeApartProps) {
  const { stage } = useStage();
  const show = useShow();
  const [at, setAt] = useState(0);
  const [playing, setPlaying] = useState<"out" | "back" | null>(null);
  const place = useRef(0);
  const steps = useMemo(() => stepsOf(order), [order]);
  const end = useMemo(() => endOf(steps, order, locked), [steps, order, locked]);
  const go = useCallback(
    (next: number) => {
      place.current = Math.max(0, Math.min(end, next));
      setAt(place.current);
      const gone = (k: number) => Math.max(0, Math.min(1, place.current - k));
      onMove(Object.fromEntries(steps.flatMap((step, k) => (step === LIFT ? [] : [[step, gone(k)]]))));
      const lift = steps.indexOf(LIFT);
      if (lift >= 0)
        onRaise(
          gone(lift) * order.liftMm,
          steps.slice(lift + 1).filter((step) => step !== LIFT),
        );
    },
    [end, steps, order.liftMm, onMove, onRaise],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: another plan stands together again.
  useEffect(() => {
    setPlaying(null);
    place.current = 0;
    setAt(0);
  }, [order]);
  useEffect(() => {
    if (!playing) return;
    const calm = window.matchMedia("(prefers-reduced-motion: reduce)").matches;
    let last = performance.now();
    let frame = 0;
    const tick = (now: number) => {
      const step = calm ? 1 : (now - last) / SECTION_MS;
      last = now;
      go(place.current + (playing === "out" ? step : -step));
      const done = playing === "out" ? place.current >= end : place.current <= 0;
      if (done) setPlaying(null);
      else frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [playing, go, end]);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.key !== " " || /^(INPUT|TEXTAREA|SELECT|BUTTON|SUMMARY)$/.test(target.tagName)) return;
      event.preventDefault();
      setPlaying((held) => (held ? null : place.current >= end ? "back" : "out"));
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [end]);
  const moving = Math.min(steps.length - 1, Math.floor(at));
  const stuck = end < steps.length ? steps[Math.floor(end)] : null;
  const block = order.blocks.find(({ section }) => order.circle.includes(section));
  return (
    <div className="mt-3" data-testid="take-apart">
      <p className="flex items-baseline justify-between text-sm">
        <span className="quiet">{messages.takeApart.takeItApart}</span>
        <span>
          {steps.map((step, k) => (
            <span key={step} className={k === moving && at > 0 && at < end ? "font-bold" : ""}>
              {k > 0 && <ArrowRight aria-hidden="true" size={14} className="mx-0.5 inline align-[-0.1em]" />}
              {step}
            </span>
          ))}
        </span>
      </p>
      <input
        type="range"
        className="range range-sm w-full"
        aria-label={messages.takeApart.howFarItIsTakenApart}
        min={0}
        max={Math.max(1, end)}
        step={0.02}
        value={at}
        disabled={!stage || end === 0}
        onChange={(event) => {
          setPlaying(null);
          go(Number(event.target.value));
        }}
      />
      <div className="mt-1 flex gap-1">
        <button
          type="button"
          className="btn btn-xs grow"
          disabled={!stage || end === 0}
          onClick={() => setPlaying((held) => (held === "out" ? null : "out"))}
        >
          {playing === "out" ? messages.takeApart.hold : messages.takeApart.takeApart}
        </button>
        <button
          type="button"
          className="btn btn-xs grow"
          disabled={!stage || at === 0}
          onClick={() => setPlaying((held) => (held === "back" ? null : "back"))}
        >
          {playing === "back" ? messages.takeApart.hold : messages.takeApart.buildUp}
        </button>
      </div>
      <p className="quiet mt-1 text-xs">{messages.takeApart.order([...order.build].join(", "))}</p>
      {order.liftBefore !== null && (
        <p className="mt-1 text-sm">{messages.takeApart.lift(order.liftBefore, show.length(order.liftMm))}</p>
      )}
      {stuck !== null && stuck !== LIFT && locked.includes(stuck) && at >= end && (
        <Caution>{messages.takeApart.stuck(stuck)}</Caution>
      )}
      {order.circle.length > 0 && (
        <Caution>
          {messages.takeApart.circle(order.circle.join(" and "), block ? show.length(block.afterMm) : null)}
        </Caution>
      )}
    </div>
  );
}

const LIFT = "lift";
/** The number of a section that leaves, or the lift. */
type Step = number | typeof LIFT;

function stepsOf({ remove, liftBefore }: GeometryReport["order"]): Step[] {
  return remove.flatMap((number): Step[] => (number === liftBefore ? [LIFT, number] : [number]));
}

/** Where the play-back ends: all apart, or at the first section that is held or blocks in a circle. */
function endOf(steps: readonly Step[], { circle }: GeometryReport["order"], locked: readonly number[]): number {
  const held = (step: Step) => step !== LIFT && locked.includes(step);
  const stuck = steps.findIndex((step) => held(step) || (step !== LIFT && circle.includes(step)));
  if (stuck < 0) return steps.length;
  return held(steps[stuck]) ? stuck + STUCK : stuck;
}
