/** Pattern sheets at 1:1 in open formats: SVG and DXF, in millimetres, a layer for what is cut, scored, marked and read. */
import { DxfWriter, LWPolylineFlags, point2d, point3d, Units } from "@tarikjabiri/dxf";
import { type Drawing, type Point, SHEET_LAYERS, type SheetLayer, type SheetText } from "../patterns/drawing.ts";

/** Pens and colours of the layers; colours by the numbers of the DXF palette. */
export const PENS: Readonly<Record<SheetLayer, { readonly css: string; readonly dxf: number; readonly dash: string }>> =
  {
    cut: { css: "#000000", dxf: 7, dash: "" },
    score: { css: "#1e4e8c", dxf: 5, dash: "4 2" },
    mark: { css: "#2f6b4f", dxf: 3, dash: "" },
    text: { css: "#22303a", dxf: 8, dash: "" },
  };

const rounded = (mm: number) => String(Math.round(mm * 1000) / 1000);

export function sheetSvg({ widthMm, heightMm, lines, circles, texts }: Drawing): string {
  const [w, h] = [rounded(widthMm), rounded(heightMm)];
  // A page's y runs down.
  const at = ([x, y]: Point) => `${rounded(x)},${rounded(heightMm - y)}`;
  const groups = SHEET_LAYERS.map((layer) => {
    const { css, dash } = PENS[layer];
    const drawn = lines
      .filter((line) => line.layer === layer)
      .map(({ points, closed }) => `<path d="M${points.map(at).join("L")}${closed ? "Z" : ""}"/>`);
    const round = circles
      .filter((circle) => circle.layer === layer)
      .map(
        ({ at: [x, y], radiusMm }) =>
          `<circle cx="${rounded(x)}" cy="${rounded(heightMm - y)}" r="${rounded(radiusMm)}"/>`,
      );
    const written = layer === "text" ? texts.map((text) => svgText(text, heightMm)) : [];
    const stroke =
      layer === "text"
        ? `fill="${css}" font-family="sans-serif"`
        : `fill="none" stroke="${css}" stroke-width="0.2"${dash ? ` stroke-dasharray="${dash}"` : ""}`;
    return `<g id="${layer}" ${stroke}>${[...drawn, ...round, ...written].join("")}</g>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">${groups.join("")}</svg>\n`;
}

function svgText({ at: [x, y], text, heightMm }: SheetText, pageMm: number): string {
  return `<text x="${rounded(x)}" y="${rounded(pageMm - y)}" font-size="${heightMm}">${escaped(text)}</text>`;
}

function escaped(text: string): string {
  return text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");
}

export function sheetDxf({ lines, circles, texts }: Drawing): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const layer of SHEET_LAYERS) dxf.addLayer(layer, PENS[layer].dxf, "CONTINUOUS");
  for (const { layer, points, closed } of lines) {
    dxf.addLWPolyline(
      points.map(([x, y]) => ({ point: point2d(x, y) })),
      { layerName: layer, flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None },
    );
  }
  for (const { layer, at, radiusMm } of circles)
    dxf.addCircle(point3d(at[0], at[1], 0), radiusMm, { layerName: layer });
  for (const { at, text, heightMm } of texts)
    dxf.addText(point3d(at[0], at[1], 0), heightMm, text, { layerName: "text" });
  return dxf.stringify();
}
