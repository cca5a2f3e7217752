/**
 * Made-up pieces nobody drew, from seeds: animals that stand and lie, figures with raised and crossed arms, busts with
 * hats and ears, two who embrace, antlers, handles, hollow and overlapping parts. Space: mm, z up, on the board z = 0.
 */
import { ball, blended, bone, ellipsoid, limb, type P3, type Sdf, smin } from "../field/implicit.ts";
import { polygonise } from "../field/polygonise.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { together } from "../mesh/together.ts";

export const STRANGER_KINDS = [
  "standing animal",
  "lying animal",
  "raised arms",
  "crossed arms",
  "bust",
  "embrace",
  "antlers",
  "handles",
  "hollow",
  "overlapping",
] as const;

export interface Stranger {
  readonly kind: (typeof STRANGER_KINDS)[number];
  readonly mesh: TriangleMesh;
}

/** Even draws between two bounds, the same for the same seed (mulberry32). */
type Draw = (least: number, most: number) => number;

function drawsOf(seed: number): Draw {
  let state = (seed * 0x9e3779b1) >>> 0;
  return (least, most) => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return least + ((most - least) * ((t ^ (t >>> 14)) >>> 0)) / 4294967296;
  };
}

/** @param heightMm about how high or long the piece is */
export function stranger(seed: number, heightMm: number, stepMm: number): Stranger {
  const kind = STRANGER_KINDS[seed % STRANGER_KINDS.length];
  const draw = drawsOf(seed + 1);
  const s = heightMm / 100;
  const surface = (body: Sdf) => {
    // Bodies are drawn a hundred high; the box is generous, for only what is near the body is kept.
    const scaled: Sdf = (x, y, z) => s * body(x / s, y / s, z / s);
    const box = { min: [-110 * s, -110 * s, 0], max: [110 * s, 110 * s, 150 * s] } as const;
    return polygonise(scaled, box, stepMm);
  };
  const bodyOf: Record<(typeof STRANGER_KINDS)[number], () => TriangleMesh> = {
    "standing animal": () => surface(animal(draw, draw(28, 45))),
    "lying animal": () => surface(animal(draw, draw(4, 12))),
    "raised arms": () => surface(figure(draw, "raised")),
    "crossed arms": () => surface(figure(draw, "crossed")),
    bust: () => surface(bust(draw)),
    embrace: () => surface(embrace(draw)),
    antlers: () => surface(animal(draw, draw(30, 40), antlers)),
    handles: () => surface(jug(draw)),
    hollow: () => hollow(bust(draw), surface),
    overlapping: () => together(surface(bust(draw)), surface(embrace(draw))),
  };
  return { kind, mesh: bodyOf[kind]() };
}

/** A piece with an inner skin, turned inwards. */
function hollow(body: Sdf, surface: (body: Sdf) => TriangleMesh): TriangleMesh {
  const inner = surface((x, y, z) => Math.max(body(x, y, z) + 4, 4 - z));
  const triangles = inner.triangles.slice();
  for (let k = 0; k < triangles.length; k += 3) [triangles[k], triangles[k + 1]] = [triangles[k + 1], triangles[k]];
  return together(surface(body), { positions: inner.positions, triangles });
}

function animal(draw: Draw, legs: number, crown: (draw: Draw, head: P3) => Sdf[] = () => []): Sdf {
  const length = draw(30, 42);
  const girth = draw(13, 20);
  const z = legs + girth * 0.8;
  const parts: Sdf[] = [
    ellipsoid([0, 0, z], [length, girth, girth * draw(0.9, 1.15)]),
    limb(
      [
        [length * 0.7, 0, z + 4, girth * 0.6],
        [length + draw(4, 10), draw(-4, 4), z + draw(12, 26), draw(6, 9)],
      ],
      6,
    ),
  ];
  const head: P3 = [length + draw(8, 16), draw(-6, 6), z + draw(16, 30)];
  parts.push(ellipsoid(head, [draw(9, 13), draw(7, 9), draw(7, 9)]));
  for (const side of [-1, 1]) {
    parts.push(
      bone([head[0] - 3, side * 5, head[2] + 5], [head[0] - 6, side * draw(8, 13), head[2] + draw(11, 18)], 2.6, 1.8),
    );
    for (const end of [-1, 1]) {
      const x = end * length * draw(0.55, 0.75);
      const spread = side * girth * draw(0.45, 0.75);
      parts.push(
        limb(
          [
            [x, spread, z - 2, 7],
            [x + draw(-6, 6), spread * draw(0.8, 1.2), z * 0.45, 5],
            [x + draw(-8, 8), spread, 2, 4.5],
          ],
          4,
        ),
      );
    }
  }
  const tip = draw(-12, 12);
  parts.push(
    limb(
      [
        [-length * 0.9, 0, z, 5],
        [-length - draw(6, 14), tip, z - draw(0, 10), 3.5],
        [-length - draw(4, 18), tip * 1.6, z + draw(-14, 16), 2.6],
      ],
      4,
    ),
  );
  const whole = blended(5, ...parts);
  const onHead = crown(draw, head);
  return onHead.length > 0 ? blended(2, whole, ...onHead) : whole;
}

/** A standing figure a hundred high; its arms end where it is told. */
function standing(draw: Draw, at: P3, facing: number, hands: (side: number) => readonly [P3, P3]): Sdf {
  const turned = (p: P3): P3 => {
    const [c, s] = [Math.cos(facing), Math.sin(facing)];
    return [at[0] + c * p[0] - s * p[1], at[1] + s * p[0] + c * p[1], at[2] + p[2]];
  };
  const parts: Sdf[] = [
    bone(turned([0, 0, 47]), turned([0, 0, 70]), draw(9, 11), draw(10, 13)),
    bone(turned([0, 0, 74]), turned([0, 0, 82]), 5, 4.5),
    ellipsoid(turned([1, 0, 91]), [draw(7, 8.5), draw(6.5, 8), draw(8.5, 10)]),
  ];
  for (const side of [-1, 1]) {
    const stance = side * draw(5, 11);
    parts.push(
      limb(
        [
          [...turned([0, side * 5, 46]), 7],
          [...turned([draw(-2, 5), stance, 24]), 5.5],
          [...turned([draw(-4, 6), stance, 3]), 4],
        ],
        4,
      ),
      bone(turned([-1, stance, 3]), turned([8, stance * 1.1, 3]), 4, 3),
    );
    const [elbow, hand] = hands(side);
    parts.push(
      limb(
        [
          [...turned([0, side * 11, 71]), 4.5],
          [...turned(elbow), 3.8],
          [...turned(hand), 3.4],
        ],
        3,
      ),
    );
  }
  return blended(4, ...parts);
}

function figure(draw: Draw, arms: "raised" | "crossed"): Sdf {
  const plinth: Sdf = ellipsoid([0, 0, 0], [22, 22, 7]);
  const body = standing(draw, [0, 0, 5], 0, (side) =>
    arms === "raised"
      ? [
          [draw(-6, 6), side * draw(18, 24), draw(72, 88)],
          [draw(-8, 12), side * draw(12, 26), draw(96, 112)],
        ]
      : [
          [draw(6, 10), side * draw(15, 18), draw(56, 62)],
          [draw(13, 17), -side * draw(4, 9), draw(60, 68) + side * 2],
        ],
  );
  return blended(4, plinth, body);
}

function bust(draw: Draw): Sdf {
  const brim = draw(20, 28);
  const hat: Sdf[] = draw(0, 1) < 0.6 ? [ellipsoid([0, 0, 84], [brim, brim, 3.5]), ball([0, 0, 88], 15)] : [];
  const nose = draw(3, 7);
  return blended(
    4,
    ellipsoid([0, 0, 8], [draw(26, 34), draw(34, 44), 20]),
    bone([0, 0, 20], [2, 0, 48], 14, 11),
    ellipsoid([4, 0, 68], [19, 16, 22]),
    bone([20, 0, 68], [22 + nose, 0, 62], 3.5, 3),
    ellipsoid([1, 17, 66], [5, 3, draw(6, 9)]),
    ellipsoid([1, -17, 66], [5, 3, draw(6, 9)]),
    ...hat,
  );
}

function embrace(draw: Draw): Sdf {
  const apart = draw(11, 15);
  const one = standing(draw, [-apart, 0, 4], 0, (side) => [
    [draw(8, 14), side * draw(15, 18), draw(62, 70)],
    [2 * apart + draw(0, 4), side * draw(6, 12), draw(60, 72)],
  ]);
  const other = standing(draw, [apart, 0, 4], Math.PI, (side) => [
    [draw(6, 12), side * draw(16, 20), draw(54, 62)],
    [2 * apart - draw(0, 4), side * draw(8, 13), draw(48, 60)],
  ]);
  const plinth: Sdf = ellipsoid([0, 0, 0], [34, 24, 6]);
  return (x, y, z) => smin(smin(one(x, y, z), other(x, y, z), 3), plinth(x, y, z), 4);
}

function antlers(draw: Draw, [x, y, z]: P3): Sdf[] {
  return [-1, 1].flatMap((side) => {
    const tops = [draw(18, 26), draw(22, 34)];
    const fork: P3 = [x - 4, y + side * 14, z + 20];
    return [
      limb(
        [
          [x - 1, y + side * 4, z + 4, 3],
          [...fork, 2.6],
          [x - 10, y + side * tops[0], z + 42, 2.2],
        ],
        2,
      ),
      bone(fork, [x + 12, y + side * tops[1], z + 30], 2.4, 2),
      bone([x - 7, y + side * 17, z + 30], [x + 4, y + side * (tops[1] + 4), z + 46], 2.3, 2),
    ];
  });
}

function jug(draw: Draw): Sdf {
  const belly = draw(24, 32);
  const reach = draw(12, 20);
  const handle = (side: number): Sdf =>
    limb(
      [
        [0, side * 15, 84, 4],
        [0, side * (belly + reach), 78, 4],
        [0, side * (belly + reach), draw(48, 58), 4],
        [0, side * (belly - 3), draw(40, 46), 4],
      ],
      4,
    );
  return blended(
    3,
    ellipsoid([0, 0, 38], [belly, belly, 36]),
    bone([0, 0, 62], [0, 0, 92], 14, draw(15, 20)),
    ellipsoid([0, 0, 2], [belly * 0.8, belly * 0.8, 6]),
    handle(1),
    ...(draw(0, 1) < 0.5 ? [handle(-1)] : []),
  );
}
