/** The profile on the drawing board: as it will be printed, and onto paper or into a file. */
import { useMemo } from "react";
import { sheetDxf, sheetSvg } from "../../../../core/export/sheets.ts";
import { profileDrawing } from "../../../../core/patterns/profile.ts";
import { saveFile } from "../../../lib/saveFile.ts";
import { useShow } from "../../../lib/show.ts";
import { printDrawings } from "../../../workers/print.ts";
import { messages } from "../messages.ts";
import type { ShownProfile } from "../useProfile.ts";

const t = messages.profiles;

/** Comes into view when it is first drawn: the walls above it may fill the board. */
function intoView(article: HTMLElement | null): void {
  article?.scrollIntoView?.({ block: "nearest" });
}

export function ProfileOnBoard({
  profile,
  pxPerMm,
  pieceName,
  paper,
}: {
  profile: ShownProfile;
  pxPerMm: number;
  pieceName: string;
  paper: string;
}) {
  const show = useShow();
  const { plane, atMm, lines } = profile;
  const title = t.named(t.planes[plane], show.length(Math.round(atMm)));
  const drawing = useMemo(() => {
    const names: string[] = [];
    for (const { mesh } of lines) names[mesh] = messages.solids.numbered(mesh + 1);
    return profileDrawing(lines, `${pieceName}: ${title}`, names);
  }, [lines, title, pieceName]);
  const file = `${pieceName.replace(/[^\w-]+/g, "-").toLowerCase()}-profile`;
  const print = async () => {
    const answer = await printDrawings([{ drawing, name: title, areaMm2: 0 }], `${pieceName}: ${title}`, paper);
    if (answer) saveFile(`${file}.pdf`, answer.bytes, "application/pdf");
  };
  const { widthMm, heightMm } = drawing;
  return (
    <article ref={intoView} className="mb-4" data-testid="profile">
      <header className="flex flex-wrap items-center gap-2 border-l-4 border-base-300 px-3 py-1">
        <h3>{title}</h3>
        <button type="button" className="btn btn-xs" disabled={widthMm === 0} onClick={() => void print()}>
          {t.print}
        </button>
        <button
          type="button"
          className="btn btn-xs"
          disabled={widthMm === 0}
          onClick={() => saveFile(`${file}.svg`, sheetSvg(drawing), "image/svg+xml")}
        >
          {messages.board.svg}
        </button>
        <button
          type="button"
          className="btn btn-xs"
          disabled={widthMm === 0}
          onClick={() => saveFile(`${file}.dxf`, sheetDxf(drawing), "application/dxf")}
        >
          {messages.board.dxf}
        </button>
      </header>
      {widthMm === 0 ? (
        <p className="quiet px-3 text-sm">{t.nothing}</p>
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
                key={`${layer} ${points[0].join()} ${points.length}`}
                d={`M${points.map(([x, y]) => `${x.toFixed(2)},${(heightMm - y).toFixed(2)}`).join("L")}${closed ? "Z" : ""}`}
                fill="none"
                stroke="currentColor"
                strokeWidth={layer === "cut" ? 1.5 : 1}
                vectorEffect="non-scaling-stroke"
                className={layer === "cut" ? "" : "text-success"}
              />
            ))}
          </svg>
        </div>
      )}
    </article>
  );
}
