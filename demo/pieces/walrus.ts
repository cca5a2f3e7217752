/** A dozing walrus, 2.2 m from brow to hind flippers, its chin on the ground. Faces -y. */

import {
  blended,
  carved,
  ellipsoid,
  limb,
  mirrored,
  type Sdf,
  smin,
  smoothstep,
  tilted,
  within,
} from "../../core/field/implicit.ts";
import { polygonise } from "../../core/field/polygonise.ts";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";

/** Trunk sections from head to tail: place along y, height of the middle, half width, half height. */
const TRUNK: readonly (readonly [number, number, number, number])[] = [
  [-760, 270, 190, 200],
  [-560, 330, 300, 300],
  [-300, 360, 400, 372],
  [0, 350, 430, 372],
  [300, 300, 395, 318],
  [600, 225, 300, 240],
  [850, 150, 190, 160],
  [1040, 105, 115, 100],
];

const trunk: Sdf = (x, y, z) => {
  const at = Math.max(TRUNK[0][0], Math.min(TRUNK[TRUNK.length - 1][0], y));
  let k = 0;
  while (k < TRUNK.length - 2 && TRUNK[k + 1][0] < at) k++;
  const s =
    smoothstep(0, 1, (at - TRUNK[k][0]) / (TRUNK[k + 1][0] - TRUNK[k][0])) * 0.6 +
    ((at - TRUNK[k][0]) / (TRUNK[k + 1][0] - TRUNK[k][0])) * 0.4;
  const mix = (n: 1 | 2 | 3) => TRUNK[k][n] + s * (TRUNK[k + 1][n] - TRUNK[k][n]);
  const bend = 70 * Math.sin((y + 300) / 620);
  const [h, rx, rz] = [mix(1), mix(2), mix(3)];
  const px = x - bend;
  const pz = z - h;
  const past = y - at;
  const round = Math.hypot(px / rx, pz / rz, past / Math.min(rx, rz));
  const height = pz / rz;
  // Rolls of hide: deep behind the neck, fading down the flanks and towards the tail.
  const rolls = smoothstep(-700, -430, y) * smoothstep(500, -150, y) * smoothstep(-0.7, 0.5, height);
  const across = (y + 70 * height * height + 26 * Math.sin(px / 130 + y / 210) + 12 * Math.sin(px / 57 - y / 95)) / 47;
  const wave = Math.sin(across + 0.8 * Math.sin(across * 0.43));
  const deep = 0.55 + 0.45 * Math.sin(y / 170 + px / 240);
  const hide =
    17 * rolls * deep * (1 - Math.abs(wave)) ** 1.6 -
    5 * Math.sin(y / 83 + px / 90) * Math.sin(z / 67) -
    3 * Math.sin(px / 37 + z / 41) * Math.sin(y / 49);
  const belly = 26 * smoothstep(0.1, -0.8, height);
  return (round - 1) * Math.min(rx, rz) * 0.85 + hide - belly;
};

const head: Sdf = blended(
  60,
  ellipsoid([-30, -840, 262], [172, 190, 172]),
  ellipsoid([-30, -900, 330], [128, 130, 96]),
);
const muzzle: Sdf = blended(
  26,
  ...[-1, 1].map((side) => ellipsoid([-30 + 78 * side, -1010, 196], [96, 92, 88])),
  ellipsoid([-30, -1018, 258], [70, 66, 46]),
  ellipsoid([-30, -960, 112], [104, 92, 62]),
);
const inHead =
  (body: Sdf): Sdf =>
  (x, y, z) =>
    mirrored(body)(x + 30, y, z);
const nostrils = inHead(tilted(ellipsoid([24, -1078, 262], [9, 20, 15]), [24, -1078, 262], "z", 22));
const lip: Sdf = (x, y, z) => Math.max(Math.abs(x + 30) - 7, Math.abs(y + 1090) - 60, Math.abs(z - 180) - 74);
const lids = inHead(ellipsoid([128, -938, 322], [26, 33, 22]));
const eyeSlits = inHead(tilted(ellipsoid([146, -952, 316], [22, 30, 4]), [146, -952, 316], "x", 14));
const tusks = inHead(
  limb(
    [
      [82, -1018, 168, 34],
      [88, -1084, 92, 29],
      [92, -1150, 44, 22],
      [94, -1212, 30, 12],
    ],
    10,
  ),
);

/** Whisker pads: rows of pits on the muzzle. */
const pits: Sdf = (x, y, z) => {
  const px = Math.abs(x + 30) - 82;
  if (y > -1010 || Math.hypot(px, z - 196) > 70) return 40;
  const col = Math.round(px / 25) * 25;
  const row = Math.round((z - 196) / 24) * 24 + 196;
  const depth = Math.sqrt(Math.max(0, 1 - (col / 96) ** 2 - ((row - 196) / 88) ** 2));
  return Math.hypot(px - col, y + 1010 + 92 * depth, z - row) - 6.5;
};

const flipper = (side: number): Sdf => {
  const x0 = 40 + side * 330;
  const arm = limb(
    [
      [x0, -430, 210, 120],
      [x0 + side * 130, -560, 84, 74],
      [x0 + side * 150, -700, 48, 50],
    ],
    60,
  );
  const fingers = [0, 1, 2, 3, 4].map((k) =>
    limb(
      [
        [x0 + side * 140, -640, 44, 34],
        [x0 + side * (96 + 44 * k), -790 + 14 * Math.abs(k - 2), 30, 25],
        [x0 + side * (84 + 58 * k), -880 + 26 * Math.abs(k - 1.5), 20, 16],
      ],
      16,
    ),
  );
  return blended(18, arm, ...fingers);
};

const tail = (side: number): Sdf => {
  const root = limb(
    [
      [30 + side * 50, 960, 110, 92],
      [40 + side * 120, 1090, 60, 60],
    ],
    40,
  );
  const toes = [0, 1, 2, 3].map((k) =>
    limb(
      [
        [40 + side * 110, 1070, 52, 40],
        [40 + side * (70 + 62 * k), 1180 - 14 * k, 32, 26],
        [40 + side * (60 + 82 * k), 1262 - 26 * k, 22, 16],
      ],
      18,
    ),
  );
  return blended(22, root, ...toes);
};

const rock: Sdf = (x, y, z) => {
  const angle = Math.atan2(y, x * 1.9);
  const lobes = 1 + 0.05 * Math.sin(3 * angle + 1) + 0.04 * Math.sin(5 * angle);
  return (
    (Math.hypot(x / 560, y / 1180) / lobes - 1) * 300 +
    Math.max(0, z - 34) * 1.4 +
    6 * Math.sin(x / 80) * Math.sin(y / 95)
  );
};

const face = carved(6, carved(8, blended(34, head, muzzle), nostrils, lip), pits);

const [leftFlipper, rightFlipper, leftTail, rightTail] = [flipper(1), flipper(-1), tail(1), tail(-1)];
const flippers: Sdf = (x, y, z) => Math.min(leftFlipper(x, y, z), rightFlipper(x, y, z));
const hind: Sdf = (x, y, z) => smin(leftTail(x, y, z), rightTail(x, y, z), 24);

const walrus: Sdf = (x, y, z) => {
  let d = smin(trunk(x, y, z), frontEnd(x, y, z), 70);
  d = smin(d, sides(x, y, z), 55);
  d = smin(d, hindEnd(x, y, z), 50);
  d = smin(d, lidded(x, y, z), 14);
  d = smin(d, tuskPair(x, y, z), 9);
  return smin(d, rock(x, y, z), 30);
};
const frontEnd = within([-260, -1120, 20], [200, -600, 460], face);
const sides = within([-640, -920, 0], [720, -280, 380], flippers);
const hindEnd = within([-420, 820, 0], [480, 1290, 240], hind);
const lidded = within([-200, -1000, 270], [140, -880, 360], carved(3, lids, eyeSlits));
const tuskPair = within([-170, -1240, 0], [110, -960, 220], tusks);

export function makeWalrus(stepMm = 7): TriangleMesh {
  return polygonise(walrus, { min: [-760, -1260, 0], max: [760, 1320, 780] }, stepMm, 2.6);
}
