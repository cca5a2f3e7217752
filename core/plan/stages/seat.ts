/** Seating: from the file's unit and axes to millimetres, upright, on the board. */
import { meshBox, type TriangleMesh, transformMesh } from "../../mesh/mesh.ts";
import { ScanProblem } from "../../mesh/problem.ts";
import { millimetresPer } from "../../units/index.ts";
import type { PlanDocument, UpAxis } from "../document/document.ts";

/** Row-major turns that bring each axis upright. */
const UPRIGHT: Readonly<Record<UpAxis, readonly number[]>> = {
  z: [1, 0, 0, 0, 1, 0, 0, 0, 1],
  "-z": [1, 0, 0, 0, -1, 0, 0, 0, -1],
  y: [1, 0, 0, 0, 0, -1, 0, 1, 0],
  "-y": [1, 0, 0, 0, 0, 1, 0, -1, 0],
  x: [0, 1, 0, 0, 0, 1, 1, 0, 0],
  "-x": [0, 1, 0, 0, 0, -1, -1, 0, 0],
};

/** Farther off than this a piece does not stay where the file has it, mm. */
const FAR_MM = 20_000;

/** Pieces outside these heights are a wrong unit, not a sculpture. */
const LEAST_SIZE_MM = 15;
const GREATEST_SIZE_MM = 15_000;

/**
 * @returns the mesh in mm, upright; standing on z = 0 when it is on a board, else where the file has it, if that is near
 * @throws ScanProblem `too-large` when the unit cannot be right
 */
export function seatPiece(raw: TriangleMesh, seat: PlanDocument["seat"]): TriangleMesh {
  const angle = (seat.turnDeg * Math.PI) / 180;
  const turn = [Math.cos(angle), -Math.sin(angle), 0, Math.sin(angle), Math.cos(angle), 0, 0, 0, 1];
  const matrix = seat.turnDeg === 0 ? UPRIGHT[seat.up] : product(turn, UPRIGHT[seat.up]);
  const scale = millimetresPer[seat.unit] * seat.tapeScale;
  const rawBox = meshBox(raw);
  const middle = rawBox.min.map((low, a) => (low + rawBox.max[a]) / 2);
  const at = [0, 3, 6].map((row) => scale * middle.reduce((sum, value, a) => sum + matrix[row + a] * value, 0));
  // What lies far off is brought near in doubles, before its coordinates are rounded to single floats.
  const shift = at.map((value) => (Math.abs(value) > FAR_MM ? -value : 0));
  const placed = transformMesh(raw, matrix, scale, shift as [number, number, number]);
  const box = meshBox(placed);
  const greatest = Math.max(...box.max.map((value, a) => value - box.min[a]));
  if (!(greatest >= LEAST_SIZE_MM && greatest <= GREATEST_SIZE_MM)) {
    const size = greatest >= 1000 ? `${(greatest / 1000).toPrecision(3)} m` : `${greatest.toPrecision(2)} mm`;
    throw new ScanProblem("too-large", `In ${seat.unit} the piece would be ${size} across; choose another unit.`);
  }
  if (!seat.onBoard || box.min[2] === 0) return placed;
  return {
    positions: placed.positions.map((value, k) => (k % 3 === 2 ? value - box.min[2] : value)),
    triangles: placed.triangles,
  };
}

function product(a: readonly number[], b: readonly number[]): number[] {
  return b.map((_, k) => {
    const row = 3 * Math.floor(k / 3);
    const column = k % 3;
    return a[row] * b[column] + a[row + 1] * b[column + 3] + a[row + 2] * b[column + 6];
  });
}
