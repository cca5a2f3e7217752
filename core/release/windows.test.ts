import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NearestField } from "../field/nearest.ts";
import { plainContext as ctx } from "../job/context.ts";
import { columnFrame, columnPoint } from "../survey/columns.ts";
import { lumps, lumpy, rotation, rotations, turnedDirection } from "../testing/random.ts";
import { sphere } from "../testing/shapes.ts";
import { Cells } from "./cells.ts";
import { emptyWindows, LineWindows, windowKernel } from "./windows.ts";

const STEP_MM = 10;
const SECTIONS = 3;

describe("the windows of a section's cell", () => {
  it("hold every place along every line that is in the cell, on and off the nodes' box", () => {
    fc.assert(
      fc.property(lumps, rotations, rotations, (lump, turn, pullTurn) => {
        const mesh = lumpy(sphere(150, 24), lump);
        const p = mesh.positions;
        const way = turnedDirection(rotation(turn), [0, 0, 1]);
        // Three wedges about a slanting axis.
        const side = turnedDirection(rotation(turn), [1, 0, 0]);
        const other = turnedDirection(rotation(turn), [0, 1, 0]);
        const potentials = Array.from({ length: SECTIONS }, (_, s) => {
          const angle = (2 * Math.PI * s) / SECTIONS;
          return Float32Array.from({ length: p.length / 3 }, (_, v) => {
            const along = [0, 1, 2].reduce((sum, a) => sum + p[3 * v + a] * side[a], 0);
            const across = [0, 1, 2].reduce((sum, a) => sum + p[3 * v + a] * other[a], 0);
            return Math.cos(angle) * along + Math.sin(angle) * across;
          });
        });
        const cells = Cells.of(NearestField.about(mesh, STEP_MM, ctx), potentials);
        const frame = columnFrame(mesh, turnedDirection(rotation(pullTurn), way), 12);
        const point = new Float64Array(3);
        for (let section = 0; section < SECTIONS; section++) {
          const windows = emptyWindows(cells.data, frame, (bytes) => new ArrayBuffer(bytes));
          windowKernel.run({ cells: cells.data, section, frame, windows });
          const along = new LineWindows(windows, frame, cells.data);
          for (let line = 0; line < frame.bundle.countU * frame.bundle.countV; line += 7) {
            along.lookUp(line);
            for (let place = -220; place < 220; place += 9) {
              columnPoint(frame, line, place, point);
              if (cells.at(point[0], point[1], point[2]) === section) expect(along.clearMm(place)).toBe(0);
            }
          }
        }
      }),
      { numRuns: 12 },
    );
  });

  it("rule out most of what is not in the cell", () => {
    const mesh = sphere(150, 24);
    const x = Float32Array.from({ length: mesh.positions.length / 3 }, (_, v) => mesh.positions[3 * v]);
    const cells = Cells.of(NearestField.about(mesh, STEP_MM, ctx), [x, x.map((value) => -value)]);
    const frame = columnFrame(mesh, [1, 0, 0], 12);
    const windows = emptyWindows(cells.data, frame, (bytes) => new ArrayBuffer(bytes));
    windowKernel.run({ cells: cells.data, section: 0, frame, windows });
    const along = new LineWindows(windows, frame, cells.data);
    let outside = 0;
    let ruledOut = 0;
    for (let line = 0; line < frame.bundle.countU * frame.bundle.countV; line++) {
      along.lookUp(line);
      for (let place = -220; place < -30; place += 9) {
        outside++;
        if (along.clearMm(place) > 0) ruledOut++;
      }
    }
    expect(ruledOut / outside).toBeGreaterThan(0.95);
  });
});
