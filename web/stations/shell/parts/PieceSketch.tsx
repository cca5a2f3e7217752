/** A piece of a wall's pattern on the drawing board: what will be printed, with bolts that can be taken hold of. */
import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { type Bolt, washerMm } from "../../../../core/flange/fastenings.ts";
import { onPiece, placeAt } from "../../../../core/flange/marks.ts";
import type { BoltPlace } from "../../../../core/flange/settings.ts";
import type { BuiltWall } from "../../../../core/plan/builtWalls.ts";
import { useShow } from "../../../lib/show.ts";
import { messages } from "../messages.ts";

type Point = readonly [number, number];

/** Round a piece, mm, for what is written beside it. */
const ROUND_MM = 12;
/** What is written is so high on the screen, px, whatever the size of the drawing. */
const LETTER_PX = 11;
/** Bends are told from this size on, px per mm: smaller, their words would lie on each other. */
const BENDS_FROM = 0.7;
/** Running numbers stand no nearer to each other than this, px. */
const NUMBERS_PX = 55;

/** Running numbers are written every so many mm. */
function numbersEvery(pxPerMm: number): number {
  return [50, 100, 200, 500, 1000].find((mm) => mm * pxPerMm >= NUMBERS_PX) ?? 1000;
}

interface SketchProps {
  readonly built: BuiltWall;
  /** Which of its pieces. */
  readonly n: number;
  readonly pxPerMm: number;
  readonly diameterMm: number;
  /** Is the wall picked? Only then its bolts are taken hold of. */
  readonly picked: boolean;
  readonly adding: boolean;
  readonly onDrag: (bolt: number, place: BoltPlace, phase: "drag" | "end") => void;
  readonly onMove: (bolt: number, place: BoltPlace) => void;
  readonly onRemove: (bolt: number) => void;
  readonly onAdd: (place: BoltPlace) => void;
}

export function PieceSketch(props: SketchProps) {
  const { built, n, pxPerMm, diameterMm, picked, adding, onDrag, onMove, onRemove, onAdd } = props;
  const show = useShow();
  const svg = useRef<SVGSVGElement>(null);
  const held = useRef<number | null>(null);
  const piece = built.pattern.pieces[n];
  const marks = built.marks[n];
  const { bolts } = built.fastenings;
  const [w, h] = [piece.widthMm + 2 * ROUND_MM, piece.heightMm + 2 * ROUND_MM];
  // A page's y runs down.
  const at = ([x, y]: Point): Point => [x + ROUND_MM, h - ROUND_MM - y];
  const path = (points: readonly Point[]) =>
    `M${points
      .map((p) =>
        at(p)
          .map((v) => v.toFixed(2))
          .join(","),
      )
      .join("L")}`;
  const letter = LETTER_PX / pxPerMm;
  const under = (event: { clientX: number; clientY: number }): BoltPlace | null => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return null;
    const [x, y] = [(event.clientX - box.left) / pxPerMm, (event.clientY - box.top) / pxPerMm];
    return placeAt(piece, [x - ROUND_MM, h - ROUND_MM - y]);
  };
  const dragTo = (event: PointerEvent, phase: "drag" | "end") => {
    const place = under(event);
    if (held.current === null || !place) return;
    onDrag(held.current, place, phase);
    if (phase === "end") held.current = null;
  };
  const keyOn = (event: KeyboardEvent, bolt: number) => {
    const step = event.shiftKey ? 10 : 1;
    const ways: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    };
    const way = ways[event.key];
    if (event.key === "Delete" || event.key === "Backspace") onRemove(bolt);
    else if (way) {
      const { alongMm, offMm } = bolts[bolt];
      onMove(bolt, { alongMm: alongMm + way[0], offMm: offMm + way[1] });
    } else return;
    event.preventDefault();
  };
  const stroke = { fill: "none", stroke: "currentColor", vectorEffect: "non-scaling-stroke" } as const;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing is no set of fields.
    <svg
      ref={svg}
      width={w * pxPerMm}
      height={h * pxPerMm}
      viewBox={`0 0 ${w} ${h}`}
      className={`block max-w-none select-none ${adding && picked ? "cursor-crosshair" : ""}`}
      role="group"
      aria-label={messages.board.piece(n + 1, built.pattern.pieces.length)}
      onPointerMove={(event) => dragTo(event, "drag")}
      onPointerUp={(event) => {
        if (held.current !== null) dragTo(event, "end");
        else if (adding && picked) {
          const place = under(event);
          if (place) onAdd(place);
        }
      }}
    >
      <path
        d={`${path([...piece.foot, ...[...piece.head].reverse()])}Z`}
        className={picked ? "fill-base-200 stroke-accent" : "fill-base-200 stroke-base-content"}
        strokeWidth={picked ? 2 : 1}
        vectorEffect="non-scaling-stroke"
      />
      <path d={path(piece.foot)} {...stroke} strokeWidth={3} className="text-primary" />
      {piece.bends.map(({ foot, head, deg }) => (
        <g key={foot.join()} className="text-primary">
          <path d={path([foot, head])} {...stroke} strokeDasharray="5 3" />
          {pxPerMm >= BENDS_FROM && (
            <text x={at(head)[0] + 1} y={at(head)[1] - 1} fontSize={0.85 * letter} fill="currentColor">
              {Math.round(Math.abs(deg))}° {deg > 0 ? "▲" : "▽"}
            </text>
          )}
        </g>
      ))}
      {piece.running
        .filter(({ mm }) => mm % numbersEvery(pxPerMm) === 0)
        .map(({ foot, head, mm }) => {
          const width = Math.hypot(head[0] - foot[0], head[1] - foot[1]) || 1;
          const inner: Point = [
            foot[0] + (5 * (head[0] - foot[0])) / width,
            foot[1] + (5 * (head[1] - foot[1])) / width,
          ];
          const outer: Point = [
            foot[0] - (4 * (head[0] - foot[0])) / width,
            foot[1] - (4 * (head[1] - foot[1])) / width,
          ];
          return (
            <g key={mm} className="text-success">
              <path d={path([foot, inner])} {...stroke} />
              <text
                x={at(outer)[0]}
                y={at(outer)[1] + letter / 3}
                fontSize={0.8 * letter}
                fill="currentColor"
                textAnchor="middle"
              >
                {mm}
              </text>
            </g>
          );
        })}
      {marks.grooves.map((points) => (
        <path key={points[0].join()} d={path(points)} {...stroke} className="text-success" />
      ))}
      {marks.slots.map((points) => (
        <path key={points[0].join()} d={path(points)} {...stroke} strokeDasharray="2 2" className="text-success" />
      ))}
      {marks.dimples.map(({ at: place, radiusMm }) => (
        <circle
          key={place.join()}
          cx={at(place)[0]}
          cy={at(place)[1]}
          r={radiusMm}
          {...stroke}
          className="text-success"
        />
      ))}
      {piece.up && <Arrow from={at(piece.up[0])} to={at(piece.up[1])} />}
      {bolts.map((bolt, k) => {
        const place = onPiece(piece, bolt);
        if (!place) return null;
        const wrong = bolt.troubles.length > 0 || bolt.access.kind === "none";
        const [x, y] = at(place);
        const name = messages.board.boltName(k + 1, show.length(bolt.alongMm), show.length(bolt.offMm), stateOf(bolt));
        const shape = (
          <>
            <circle cx={x} cy={y} r={washerMm(diameterMm)} className="fill-base-100" {...stroke} fill={undefined} />
            <circle cx={x} cy={y} r={diameterMm / 2} fill="currentColor" />
            {wrong && <path d={`M${x - 9},${y + 9}L${x},${y - 9}L${x + 9},${y + 9}Z`} {...stroke} strokeWidth={2} />}
            {bolt.access.kind === "aslant" && <path d={`M${x - 9},${y + 9}L${x + 9},${y - 9}`} {...stroke} />}
            <title>{name}</title>
          </>
        );
        const tone = wrong ? "text-warning" : "text-base-content";
        if (!picked)
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: bolts are told apart by their place along the wall.
            <g key={k} className={tone}>
              {shape}
            </g>
          );
        return (
          // biome-ignore lint/a11y/useSemanticElements: a drawing holds no buttons.
          <g
            // biome-ignore lint/suspicious/noArrayIndexKey: bolts are told apart by their place along the wall.
            key={k}
            role="button"
            tabIndex={0}
            aria-label={`${name}. ${messages.board.keys}`}
            className={`${tone} cursor-grab outline-offset-2`}
            onPointerDown={(event) => {
              held.current = k;
              svg.current?.setPointerCapture(event.pointerId);
              event.stopPropagation();
            }}
            onKeyDown={(event) => keyOn(event, k)}
          >
            <circle cx={x} cy={y} r={Math.max(washerMm(diameterMm), 12 / pxPerMm)} fill="transparent" />
            {shape}
          </g>
        );
      })}
    </svg>
  );
}

function Arrow({ from, to }: { from: Point; to: Point }) {
  const way = [to[0] - from[0], to[1] - from[1]];
  const barb = (side: number) =>
    `${to[0] - 0.3 * way[0] + side * 0.18 * way[1]},${to[1] - 0.3 * way[1] - side * 0.18 * way[0]}`;
  return (
    <path
      d={`M${from.join()}L${to.join()}M${barb(1)}L${to.join()}L${barb(-1)}`}
      fill="none"
      stroke="currentColor"
      vectorEffect="non-scaling-stroke"
    />
  );
}

function stateOf({ troubles, access }: Bolt): string {
  const found: string[] = troubles.map((trouble) => messages.troubles[trouble]);
  if (access.kind === "aslant") found.push(messages.access.aslant(Math.round(access.deg), access.section));
  if (access.kind === "none") found.push(messages.access.none(access.section));
  return found.length > 0 ? found.join("; ") : messages.board.clear;
}
