import { useCallback, useMemo, useState } from "react";
import type { HandEdit } from "../../../../core/parting/layout/edit.ts";
import { type LaidLine, placesAlong } from "../../../../core/parting/layout/layout.ts";
import { troubleInWords } from "../../../../core/parting/layout/sections.ts";
import type { Way } from "../../../../core/parting/layout/ways.ts";
import type { GeometryReport } from "../../../../core/plan/results/report.ts";
import { useShow } from "../../../lib/show.ts";
import { Caution, Choice, More, Part } from "../../../ui/fields.tsx";
import type { StationProps } from "../../station.ts";
import { messages } from "../messages.ts";
import type { HandWork } from "../useHand.ts";
import { type Chosen, FAR_NUDGE, NUDGE_MM, type Place, useHandKeys, useStageHands } from "../useLineHands.ts";
import { SuggestRest } from "./SuggestRest.tsx";

type WayKind = Way["kind"];

const WAYS: readonly { value: WayKind; name: string }[] = [
  { value: "shortest", name: messages.linesByHand.shortest },
  { value: "horizon", name: messages.linesByHand.horizon },
  { value: "creases", name: messages.linesByHand.creases },
];

/** Moves, draws and merges the parting's lines. */
export function LinesByHand({
  hand,
  planning,
  sections,
  canTake,
  onSuggest,
}: {
  hand: HandWork;
  planning: StationProps["planning"];
  sections: GeometryReport["sections"];
  canTake: boolean;
  onSuggest: () => void;
}) {
  const { layout } = hand;
  if (!layout) {
    return (
      <Part title={messages.linesByHand.linesByHand}>
        <p className="quiet pb-2 text-sm">{messages.linesByHand.invitation}</p>
        <button type="button" className="btn btn-sm w-full" disabled={!canTake} onClick={hand.take}>
          {messages.linesByHand.takeTheLinesInHand}
        </button>
      </Part>
    );
  }
  return (
    <Part
      title={messages.linesByHand.linesByHand}
      aside={
        <button type="button" className="text-sm underline" onClick={onSuggest}>
          {messages.linesByHand.suggestAgain}
        </button>
      }
    >
      <HandTools
        hand={hand}
        layout={layout}
        sections={sections}
        settled={planning.quality === "settled" && !planning.glance}
      />
      <SuggestRest layout={layout} planning={planning} />
    </Part>
  );
}

function HandTools({
  hand,
  layout,
  sections,
  settled,
}: {
  hand: HandWork;
  layout: NonNullable<HandWork["layout"]>;
  sections: GeometryReport["sections"];
  settled: boolean;
}) {
  const show = useShow();
  const [mode, setMode] = useState<"move" | "draw">("move");
  const [way, setWay] = useState<WayKind>("shortest");
  const [horizonOf, setHorizonOf] = useState(0);
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [picked, setPicked] = useState<readonly Place[]>([]);
  const numberOf = (origin: number) => sections.find((section) => section.origin === origin)?.number ?? origin + 1;
  const wayTaken = useMemo(
    (): Way =>
      way === "horizon" ? { kind: way, pull: (layout.sections[horizonOf] ?? layout.sections[0]).pull } : { kind: way },
    [way, horizonOf, layout.sections],
  );
  const chosenLine = chosen && layout.lines[chosen.line] ? chosen : null;

  const finish = useCallback(
    async (closed: boolean) => {
      if (await hand.make({ kind: "draw", picked, closed, way: wayTaken })) {
        setPicked([]);
        setMode("move");
        setChosen(null);
      }
    },
    [hand, picked, wayTaken],
  );
  useStageHands({ hand, layout, mode, chosen: chosenLine, setChosen, picked, setPicked });
  useHandKeys({
    hand,
    layout,
    mode,
    chosen: chosenLine,
    setChosen,
    picked,
    setPicked,
    finish,
    stop: () => setMode("move"),
  });

  const change = (made: HandEdit) => {
    setChosen(null);
    void hand.make(made);
  };
  return (
    <div data-testid="hand">
      <Choice
        label={messages.linesByHand.theHand}
        value={mode}
        options={[
          { value: "move", name: messages.linesByHand.moveHandles },
          { value: "draw", name: messages.linesByHand.drawALine },
        ]}
        onChange={(next) => {
          setMode(next);
          setPicked([]);
          setChosen(null);
        }}
      />
      {(mode === "draw" || chosenLine) && (
        <>
          <Choice label={messages.linesByHand.howItRunsBetween} value={way} options={WAYS} onChange={setWay} />
          {way === "horizon" && (
            <label className="flex items-center justify-between py-1 text-sm">
              <span className="quiet">{messages.linesByHand.horizonOfThePullOf}</span>
              <select
                className="select select-sm w-32"
                value={horizonOf}
                onChange={(event) => setHorizonOf(Number(event.target.value))}
              >
                {[...layout.sections.keys()].map((s) => (
                  <option key={s} value={s}>
                    {messages.linesByHand.section(numberOf(s))}
                  </option>
                ))}
              </select>
            </label>
          )}
        </>
      )}
      {mode === "move" && !chosenLine && <p className="quiet py-1 text-sm">{messages.linesByHand.moveHelp}</p>}
      {mode === "move" && chosenLine && (
        <div className="mt-1 grid grid-cols-2 gap-1">
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => void hand.make({ kind: "lay", ...chosenLine, way: wayTaken })}
          >
            {messages.linesByHand.layTheStretchAfterIt}
          </button>
          <button type="button" className="btn btn-sm" onClick={() => change({ kind: "remove", ...chosenLine })}>
            {messages.linesByHand.takeTheDotAway}
          </button>
          <p className="quiet col-span-2 text-xs">
            {messages.linesByHand.keysHelp(show.length(NUDGE_MM), show.length(NUDGE_MM * FAR_NUDGE))}
          </p>
        </div>
      )}
      {mode === "draw" && (
        <>
          <p className="quiet py-1 text-sm" data-testid="picked">
            {picked.length === 0 ? messages.linesByHand.drawHelp : messages.linesByHand.picked(picked.length)}
          </p>
          <div className="grid grid-cols-3 gap-1">
            <button
              type="button"
              className="btn btn-sm"
              disabled={picked.length < 2}
              onClick={() => void finish(false)}
            >
              {messages.linesByHand.finish}
            </button>
            <button type="button" className="btn btn-sm" disabled={picked.length < 3} onClick={() => void finish(true)}>
              {messages.linesByHand.closeToARing}
            </button>
            <button
              type="button"
              className="btn btn-sm"
              disabled={picked.length === 0}
              onClick={() => setPicked((before) => before.slice(0, -1))}
            >
              {messages.linesByHand.takeBack}
            </button>
          </div>
        </>
      )}
      {hand.problem && <Caution>{hand.problem}</Caution>}
      {/* Once settled, the plan tells them itself. */}
      {!settled &&
        (hand.glance?.troubles ?? []).map((trouble) => {
          const number = sections.find(({ origin }) => origin === trouble.section)?.number ?? null;
          return <Caution key={trouble.section}>{troubleInWords(trouble, number)}</Caution>;
        })}
      <More title={messages.linesByHand.mergeOrMirror(layout.lines.length)}>
        <ul className="text-sm" data-testid="laid-lines">
          {layout.lines.map((line, n) => (
            <li
              // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place.
              key={n}
              className="flex items-center justify-between gap-2 py-1"
            >
              <span>
                {numberOf(line.left)} | {numberOf(line.right)}{" "}
                <span className="quiet">{show.length(lengthOf(line))}</span>
              </span>
              <span className="flex gap-1">
                <button
                  type="button"
                  className="btn btn-xs"
                  onClick={() =>
                    change({
                      kind: "merge",
                      one: Math.min(line.left, line.right),
                      other: Math.max(line.left, line.right),
                    })
                  }
                >
                  {messages.linesByHand.merge}
                </button>
                <button
                  type="button"
                  className="btn btn-xs"
                  onClick={() => change({ kind: "mirror", line: n, across: "x" })}
                >
                  {messages.linesByHand.mirrorAcross}
                </button>
                <button
                  type="button"
                  className="btn btn-xs"
                  onClick={() => change({ kind: "mirror", line: n, across: "y" })}
                >
                  {messages.linesByHand.mirrorAlong}
                </button>
              </span>
            </li>
          ))}
        </ul>
      </More>
    </div>
  );
}

function lengthOf({ points, closed }: LaidLine): number {
  return placesAlong(points, closed).at(-1) ?? 0;
}
