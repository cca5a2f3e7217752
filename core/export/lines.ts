import { DxfWriter, point3d } from "@tarikjabiri/dxf";
import type { PartingLine } from "../parting/lines/cut.ts";

/** Parting lines as plain data: sections by number, points in mm. */
export function linesAsData(lines: readonly PartingLine[]) {
  return {
    unit: "mm",
    lines: lines.map((line) => ({
      sections: pairOf(line),
      /** Which of the two lies on its left, seen from outside. */
      left: line.sections[0] + 1,
      closed: line.closed,
      points: Array.from({ length: line.points.length / 3 }, (_, k) =>
        [0, 1, 2].map((a) => Math.round(line.points[3 * k + a] * 1000) / 1000),
      ),
    })),
  };
}

/** Numbers of a line's two sections, the lower first. */
function pairOf({ sections }: PartingLine): number[] {
  return sections.map((s) => s + 1).sort((a, b) => a - b);
}

/** Parting lines as 3-D polylines in DXF, mm, one layer a pair of sections. */
export function writeDxf(lines: readonly PartingLine[]): string {
  const dxf = new DxfWriter();
  for (const line of lines) {
    const layer = `parting-${pairOf(line).join("-")}`;
    if (!dxf.tables.layerTable.exist(layer)) dxf.addLayer(layer, 5, "CONTINUOUS");
    const vertices = Array.from({ length: line.points.length / 3 }, (_, k) => ({
      point: point3d(line.points[3 * k], line.points[3 * k + 1], line.points[3 * k + 2]),
    }));
    if (line.closed && vertices.length > 0) vertices.push(vertices[0]);
    dxf.addPolyline3D(vertices, { layerName: layer });
  }
  return dxf.stringify();
}
