/** A drawing of its own on the drawing board, beside the walls: as it will be printed, and onto paper or into a file. */
import type { ReactNode } from "react";
import { sheetDxf, sheetSvg } from "../../../../core/export/sheets.ts";
import type { Drawing } from "../../../../core/patterns/drawing.ts";
import { saveFile } from "../../../lib/saveFile.ts";
import { printDrawings } from "../../../workers/print.ts";
import { messages } from "../messages.ts";

const t = messages.profiles;

/** Comes into view when it is first drawn: the walls above it may fill the board. */
function intoView(article: HTMLElement | null): void {
  article?.scrollIntoView?.({ block: "nearest" });
}

export interface OnBoardProps {
  readonly drawing: Drawing;
  readonly title: string;
  readonly pieceName: string;
  /** What its files are called after the piece. */
  readonly fileName: string;
  readonly paper: string;
  readonly pxPerMm: number;
  readonly testId: string;
  /** Said where there is nothing to draw. */
  readonly nothing: string;
  readonly comesIntoView?: boolean;
  readonly children?: ReactNode;
}

export function DrawingOnBoard(props: OnBoardProps) {
  const { drawing, title, pieceName, fileName, paper, pxPerMm, testId, nothing, comesIntoView, children } = props;
  const { widthMm, heightMm } = drawing;
  const file = `${pieceName.replace(/[^\w-]+/g, "-").toLowerCase()}-${fileName}`;
  const print = async () => {
    const answer = await printDrawings([{ drawing, name: title, areaMm2: 0 }], `${pieceName}: ${title}`, paper);
    if (answer) saveFile(`${file}.pdf`, answer.bytes, "application/pdf");
  };
  const button = (name: string, press: () => void) => (
    <button type="button" className="btn btn-xs" disabled={widthMm === 0} onClick={press}>
      {name}
    </button>
  );
  return (
    <article ref={comesIntoView ? intoView : null} className="mb-4" data-testid={testId}>
      <header className="flex flex-wrap items-center gap-2 border-l-4 border-base-300 px-3 py-1">
        <h3>{title}</h3>
        {button(t.print, () => void print())}
        {button(messages.board.svg, () => saveFile(`${file}.svg`, sheetSvg(drawing), "image/svg+xml"))}
        {button(messages.board.dxf, () => saveFile(`${file}.dxf`, sheetDxf(drawing), "application/dxf"))}
        {children}
      </header>
      {widthMm === 0 ? (
        <p className="quiet px-3 text-sm">{nothing}</p>
      ) : (
        <div className="overflow-x-auto">
          <svg
            width={widthMm * pxPerMm}
            height={heightMm * pxPerMm}
            viewBox={`0 0 ${widthMm} ${heightMm}`}
            className="block max-w-none"
            role="img"
            aria-label={title}
          >
            {drawing.lines.map(({ layer, points, closed }) => (
              <path
                key={`${layer} ${points.join()}`}
                d={`M${points.map(([x, y]) => `${x.toFixed(2)},${(heightMm - y).toFixed(2)}`).join("L")}${closed ? "Z" : ""}`}
                fill="none"
                stroke="currentColor"
                strokeWidth={layer === "cut" ? 1.5 : 1}
                vectorEffect="non-scaling-stroke"
                className={layer === "cut" ? "" : "text-success"}
              />
            ))}
            {drawing.circles.map(({ at, radiusMm, layer }) => (
              <circle
                key={at.join()}
                cx={at[0]}
                cy={heightMm - at[1]}
                r={radiusMm}
                fill="none"
                stroke="currentColor"
                strokeWidth={1.5}
                vectorEffect="non-scaling-stroke"
                className={layer === "cut" ? "" : "text-success"}
              />
            ))}
            {drawing.texts.slice(1).map(({ at, text, heightMm: size }) => (
              <text
                key={`${at.join()} ${text}`}
                x={at[0]}
                y={heightMm - at[1]}
                fontSize={Math.max(size, 11 / pxPerMm)}
                fill="currentColor"
              >
                {text}
              </text>
            ))}
          </svg>
        </div>
      )}
    </article>
  );
}
