/** The drawing board: all walls laid flat, as they will be printed; bolts are moved on it, and it goes to paper or file. */
import { type ReactNode, useEffect, useRef, useState } from "react";
import { sheetDxf, sheetSvg } from "../../../core/export/sheets.ts";
import type { BoltPlace, FlangeSettings } from "../../../core/flange/settings.ts";
import { PAPERS } from "../../../core/patterns/pages.ts";
import { sheetOf } from "../../../core/patterns/sheet.ts";
import { type BuiltWall, drillMapCsv } from "../../../core/plan/builtWalls.ts";
import { saveFile } from "../../lib/saveFile.ts";
import { useShow } from "../../lib/show.ts";
import { printWalls } from "../../workers/print.ts";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { Calibrate } from "./parts/Calibrate.tsx";
import { FootprintOnBoard } from "./parts/FootprintOnBoard.tsx";
import { PieceSketch } from "./parts/PieceSketch.tsx";
import { ProfileOnBoard } from "./parts/ProfileOnBoard.tsx";
import { SectionSheets } from "./parts/SectionSheets.tsx";
import { usePicked } from "./picked.ts";
import { keepScreenPxPerMm, screenPxPerMm } from "./trueSize.ts";
import { useFootprint } from "./useFootprint.ts";
import { useProfile } from "./useProfile.ts";
import { boltsOf, useFlangeEdits, useWalls, wholeMm } from "./useWalls.ts";

type Size = "fit" | "true" | number;
/** Each step of the size, and its bounds, px per mm. */
const SIZE_STEP = 1.25;
const [LEAST_SIZE, MOST_SIZE] = [0.05, 12];
/** Round the walls, px. */
const ROUND_PX = 80;

export function DrawingBoard(props: StationProps) {
  const { piece, document } = props;
  const show = useShow();
  const walls = useWalls(props);
  const profile = useProfile(props);
  const footprint = useFootprint(walls, props);
  const [paper, setPaper] = useState<string>(PAPERS[0].id);
  const [size, setSize] = useState<Size>("fit");
  const [calibrating, setCalibrating] = useState(false);
  const board = useRef<HTMLElement>(null);
  const room = useWidth(board);
  const [measured, setMeasured] = useState(screenPxPerMm);
  const longest = Math.max(300, ...walls.flatMap(({ pattern }) => pattern.pieces.map(({ widthMm }) => widthMm)));
  const pxPerMm =
    size === "fit" ? Math.min(1.6, (room - ROUND_PX) / (longest + 24)) : size === "true" ? measured : size;
  const zoom = (by: number) => setSize(Math.min(MOST_SIZE, Math.max(LEAST_SIZE, pxPerMm * by)));
  const t = messages.board;
  const sized = (wanted: Size, name: string) => (
    <button
      type="button"
      aria-pressed={size === wanted}
      className={`btn btn-sm join-item ${size === wanted ? "btn-neutral" : "border-base-300 bg-base-100"}`}
      onClick={() => setSize(wanted)}
    >
      {name}
    </button>
  );
  return (
    <section ref={board} className="px-5 py-4 pb-56" aria-label={t.title}>
      <header className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2 pb-3">
        <h2 className="text-xl font-semibold">
          {t.title} <span className="quiet text-sm font-normal">{t.walls(walls.length)}</span>
        </h2>
        <div className="flex flex-wrap items-center gap-2">
          <fieldset className="join" aria-label={t.size}>
            {sized("fit", t.fit)}
            {sized("true", t.trueSize)}
            <button
              type="button"
              className="btn btn-sm join-item border-base-300 bg-base-100"
              aria-label={t.smaller}
              onClick={() => zoom(1 / SIZE_STEP)}
            >
              −
            </button>
            <button
              type="button"
              className="btn btn-sm join-item border-base-300 bg-base-100"
              aria-label={t.larger}
              onClick={() => zoom(SIZE_STEP)}
            >
              +
            </button>
          </fieldset>
          {size === "true" && (
            <button type="button" className="btn btn-sm" onClick={() => setCalibrating(true)}>
              {t.calibrate}
            </button>
          )}
        </div>
      </header>
      {walls.length === 0 ? (
        <>
          <p className="quiet mb-2">{t.empty}</p>
          <SectionSheets station={props} walls={walls} paper={paper} />
        </>
      ) : (
        <ToPaper
          {...{ walls, paper, setPaper }}
          pieceName={piece.name}
          bolts={document.shell.flanges.bolts}
          sheets={<SectionSheets station={props} walls={walls} paper={paper} />}
        />
      )}
      {walls.map((built) => (
        <WallOnBoard
          key={built.pattern.number}
          built={built}
          walls={walls}
          pxPerMm={pxPerMm}
          diameterMm={document.shell.flanges.bolts.diameterMm}
          lengthText={show.length(built.pattern.lengthMm)}
        />
      ))}
      {footprint && (
        <FootprintOnBoard
          {...{ footprint, walls, pxPerMm, paper }}
          boltMm={document.shell.flanges.bolts.diameterMm}
          pieceName={piece.name}
        />
      )}
      {profile && <ProfileOnBoard profile={profile} pxPerMm={pxPerMm} pieceName={piece.name} paper={paper} />}
      {calibrating && (
        <Calibrate
          pxPerMm={measured}
          onClose={() => setCalibrating(false)}
          onDone={(found) => {
            keepScreenPxPerMm(found);
            setMeasured(found);
            setCalibrating(false);
          }}
        />
      )}
    </section>
  );
}

interface OnBoard {
  readonly built: BuiltWall;
  readonly walls: readonly BuiltWall[];
  readonly pxPerMm: number;
  readonly diameterMm: number;
  readonly lengthText: string;
}

function WallOnBoard({ built, walls, pxPerMm, diameterMm, lengthText }: OnBoard) {
  const { pattern, id } = built;
  const { number, sections, seenFrom, pieces } = pattern;
  const { wall: pickedWall, adding, pick, drag, add } = usePicked();
  const { choose } = useFlangeEdits();
  const picked = pickedWall === number;
  const article = useRef<HTMLElement>(null);
  // What is picked on the stage comes into sight on the board.
  useEffect(() => {
    if (picked) article.current?.scrollIntoView?.({ block: "nearest" });
  }, [picked]);
  const t = messages.board;
  const keep = (change: (bolts: BoltPlace[]) => BoltPlace[]) => {
    const bolts = boltsOf(walls, number);
    if (id && bolts) choose(id, { bolts: change(bolts).sort((a, b) => a.alongMm - b.alongMm) });
  };
  const moved = (bolt: number, place: BoltPlace) =>
    keep((bolts) => bolts.map((each, k) => (k === bolt ? wholeMm(place) : each)));
  return (
    <article ref={article} className="mb-4">
      <button
        type="button"
        aria-pressed={picked}
        className={`w-full border-l-4 px-3 py-1 text-left ${picked ? "border-accent bg-base-200 font-medium" : "border-base-300"}`}
        onClick={() => pick(picked ? null : number)}
      >
        {t.wall(number, t.between(...sections), lengthText)}
        <span className="quiet ml-2 text-sm font-normal">{t.side(seenFrom)}</span>
      </button>
      <div className="overflow-x-auto">
        {pieces.map((piece, n) => (
          <PieceSketch
            key={piece.fromMm}
            {...{ built, n, pxPerMm, diameterMm, picked, adding }}
            onDrag={(bolt, place, phase) => {
              if (phase === "drag") drag({ wall: number, bolt, place });
              else {
                drag(null);
                moved(bolt, place);
              }
            }}
            onMove={moved}
            onRemove={(bolt) => keep((bolts) => bolts.filter((_, k) => k !== bolt))}
            onAdd={(place) => {
              add(false);
              keep((bolts) => [...bolts, wholeMm(place)]);
            }}
          />
        ))}
      </div>
    </article>
  );
}

/** Onto paper as a PDF, or into a file for a cutter. */
function ToPaper({
  walls,
  pieceName,
  bolts,
  paper,
  setPaper,
  sheets,
}: {
  walls: readonly BuiltWall[];
  pieceName: string;
  bolts: FlangeSettings["bolts"];
  paper: string;
  setPaper: (paper: string) => void;
  /** What prints the sections' sheets. */
  sheets: ReactNode;
}) {
  const picked = usePicked(({ wall }) => wall);
  const [told, setTold] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const t = messages.board;
  const name = pieceName.replace(/[^\w-]+/g, "-").toLowerCase();
  const one = picked === null ? null : (walls[picked - 1] ?? null);
  const print = async (wanted: readonly BuiltWall[]) => {
    setBusy(true);
    setTold(null);
    const answer = await printWalls(wanted, pieceName, paper, walls.length);
    setBusy(false);
    if (!answer) return setTold(t.failed);
    saveFile(`${name}-walls-${paper}.pdf`, answer.bytes, "application/pdf");
    setTold(t.waste(answer.pages, `${Math.round(100 * answer.wasteShare)} %`));
  };
  const take = (kind: "svg" | "dxf") => {
    for (const { pattern, marks } of one ? [one] : walls) {
      const sheet = sheetOf(pattern, { pieceName, walls: walls.length }, marks);
      const text = kind === "svg" ? sheetSvg(sheet) : sheetDxf(sheet);
      saveFile(`${name}-wall-${pattern.number}.${kind}`, text, kind === "svg" ? "image/svg+xml" : "application/dxf");
    }
  };
  return (
    <div className="mb-4 flex flex-wrap items-center gap-2 border-b border-base-300 pb-3">
      <label className="quiet text-sm">
        <span className="sr-only">{t.paper}</span>
        <select className="select select-sm w-28" value={paper} onChange={(event) => setPaper(event.target.value)}>
          {PAPERS.map(({ id, name: called }) => (
            <option key={id} value={id}>
              {called}
            </option>
          ))}
        </select>
      </label>
      <button type="button" className="btn btn-sm btn-neutral" disabled={busy} onClick={() => void print(walls)}>
        {busy ? t.printing : t.printAll}
      </button>
      <button type="button" className="btn btn-sm" disabled={busy || !one} onClick={() => one && void print([one])}>
        {t.printOne}
      </button>
      <button type="button" className="btn btn-sm" onClick={() => take("svg")}>
        {t.svg}
      </button>
      <button type="button" className="btn btn-sm" onClick={() => take("dxf")}>
        {t.dxf}
      </button>
      <button
        type="button"
        className="btn btn-sm"
        onClick={() => saveFile(`${name}-drill-maps.csv`, drillMapCsv(walls, bolts), "text/csv")}
      >
        {t.drillCsv}
      </button>
      {sheets}
      {told && (
        <span className="quiet text-sm" role="status">
          {told}
        </span>
      )}
    </div>
  );
}

/** Width of an element, px, as it is laid out. */
function useWidth(element: React.RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(900);
  useEffect(() => {
    const { current } = element;
    if (!current || typeof ResizeObserver === "undefined") return;
    const observer = new ResizeObserver(() => setWidth(current.clientWidth));
    observer.observe(current);
    return () => observer.disconnect();
  }, [element]);
  return width;
}
