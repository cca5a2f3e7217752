/**
 * Pieces that are harder to part than most: a coiled dragon with spikes and claws, a maned animal, a knot, a tree with
 * apples, a figure with thin wings. Space: mm, z up, on the board z = 0.
 */
import { ball, blended, bone, ellipsoid, limb, type P3, type Sdf, smin } from "../field/implicit.ts";
import { polygonise } from "../field/polygonise.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";

export const HARD_PIECES = ["dragon", "maned", "knot", "tree", "wings"] as const;
export type HardPiece = (typeof HARD_PIECES)[number];

/** @param heightMm about how high or long the piece is */
export function hardPiece(name: HardPiece, heightMm: number, stepMm: number): TriangleMesh {
  const s = heightMm / 100;
  const body = BODIES[name]();
  // Bodies are drawn a hundred high; the box is generous, for only what is near the body is kept.
  const box = { min: [-110 * s, -110 * s, 0], max: [110 * s, 110 * s, 150 * s] } as const;
  return polygonise((x, y, z) => s * body(x / s, y / s, z / s), box, stepMm);
}

/** The surface with bumps of a height and a wavelength, as hair and scales have. */
function bumpy(body: Sdf, height: number, wave: number): Sdf {
  const k = (2 * Math.PI) / wave;
  return (x, y, z) => {
    const d = body(x, y, z);
    if (Math.abs(d) > 3 * height) return d;
    const bump =
      Math.sin(k * x + 1.3 * Math.sin(0.7 * k * y)) *
      Math.sin(k * y + Math.sin(0.6 * k * z)) *
      Math.sin(0.9 * k * z + 0.4);
    return 0.7 * d + 0.5 * height * bump;
  };
}

/** A round limb along a curve. */
function along(parts: number, at: (share: number) => P3, radius: (share: number) => number): Sdf {
  return limb(
    Array.from({ length: parts + 1 }, (_, k) => [...at(k / parts), radius(k / parts)] as const),
    3,
  );
}

function dragon(): Sdf {
  const spine = (t: number): P3 => [
    60 * t - 25 + 10 * Math.sin(9 * t),
    22 * Math.sin(7 * t),
    22 + 14 * Math.sin(11 * t + 0.5) + 18 * t * t,
  ];
  const girth = (t: number) => 2.5 + 9 * Math.max(0, Math.sin(Math.PI * Math.min(1, 1.05 * t))) ** 0.8;
  const parts: Sdf[] = [along(24, spine, girth)];
  for (let k = 2; k < 22; k++) {
    const [x, y, z] = spine(k / 24);
    parts.push(bone([x, y, z + 6], [x - 3, y, z + 14], 2.2, 0.8));
  }
  const [hx, hy, hz] = spine(1);
  parts.push(ellipsoid([hx + 5, hy, hz + 2], [9, 5, 5]), bone([hx + 8, hy, hz - 4], [hx + 17, hy, hz - 8], 2.6, 1.6));
  for (const side of [-1, 1]) {
    parts.push(bone([hx + 2, hy + 3 * side, hz + 5], [hx - 8, hy + 7 * side, hz + 16], 1.8, 0.8));
    for (const t of [0.35, 0.75]) {
      const [x, y, z] = spine(t);
      const foot = y + 14 * side;
      parts.push(
        limb(
          [
            [x, y + 4 * side, z, 5],
            [x + 4, y + 13 * side, z * 0.6, 3.6],
            [x + 2, foot, 2, 3],
          ],
          3,
        ),
      );
      for (const claw of [-4, 0, 4]) parts.push(bone([x + 2, foot, 2], [x + 9, foot + claw, 1.5], 1.8, 1));
    }
  }
  return bumpy(blended(2.5, ...parts), 1, 9);
}

function maned(): Sdf {
  const legs = [-1, 1].flatMap((side) => [
    bone([18, 9 * side, 28], [22, 10 * side, 3], 6, 5),
    bone([-18, 9 * side, 26], [-16, 10 * side, 3], 6, 5),
  ]);
  const tail = limb(
    [
      [-24, 0, 32, 4],
      [-36, 4, 22, 3],
      [-34, 12, 34, 3],
    ],
    3,
  );
  const body = [ellipsoid([0, 0, 30], [24, 14, 15]), ellipsoid([22, 0, 48], [15, 17, 20])];
  return bumpy(bumpy(blended(4, ...body, ellipsoid([32, 0, 52], [10, 8, 9]), ...legs, tail), 1.6, 11), 0.8, 5);
}

/** A trefoil: no pull sees all of its windows. */
function knot(): Sdf {
  const at = (t: number): P3 => {
    const a = 2 * Math.PI * t;
    const ring = 26 + 11 * Math.cos(3 * a);
    return [ring * Math.cos(2 * a), ring * Math.sin(2 * a), 40 + 14 * Math.sin(3 * a)];
  };
  return along(90, at, () => 6.5);
}

function tree(): Sdf {
  const parts: Sdf[] = [
    limb(
      [
        [0, 0, 0, 9],
        [3, 2, 30, 7],
        [-2, -3, 60, 5],
        [4, 0, 95, 2.5],
      ],
      4,
    ),
  ];
  for (let k = 0; k < 9; k++) {
    const [z, reach] = [28 + 7 * k, 34 - 2 * k];
    const [x, y] = [reach * Math.cos(2.4 * k), reach * Math.sin(2.4 * k)];
    parts.push(
      limb(
        [
          [0, 0, z, 4],
          [0.6 * x, 0.6 * y, z + 6, 3],
          [x, y, z + 18, 2],
        ],
        2,
      ),
      ball([x, y, z + 18], 5),
    );
  }
  return blended(3, ...parts);
}

function wings(): Sdf {
  const tail = limb(
    [
      [-8, 0, 25, 6],
      [-24, 6, 14, 4],
      [-34, -8, 6, 2.5],
    ],
    3,
  );
  const body = blended(
    4,
    ellipsoid([0, 0, 40], [10, 10, 22]),
    bone([0, 0, 62], [4, 0, 76], 5, 6),
    ellipsoid([7, 0, 78], [9, 6, 6]),
    bone([0, 6, 20], [2, 10, 2], 5, 4),
    bone([0, -6, 20], [2, -10, 2], 5, 4),
    ellipsoid([0, 0, 0], [22, 22, 6]),
    tail,
  );
  const wing =
    (side: number): Sdf =>
    (x, y, z) => {
      const out = y * side;
      const behind = -6 - 0.02 * out * out + 0.05 * (z - 50);
      const top = 60 + 0.5 * out;
      const bottom = 30 + 0.25 * out + 6 * Math.abs(Math.sin(out / 7));
      return 0.7 * Math.max(Math.abs(x - behind) - 1.8, 4 - out, out - 48, z - top, bottom - z);
    };
  const [left, right] = [wing(1), wing(-1)];
  return (x, y, z) => smin(smin(body(x, y, z), left(x, y, z), 2), right(x, y, z), 2);
}

const BODIES: Readonly<Record<HardPiece, () => Sdf>> = { dragon, maned, knot, tree, wings };
