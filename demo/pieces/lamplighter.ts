/** A lamplighter, 1.9 m, standing in a wind-blown cloak, one arm raised with his lamp. Faces -y. */

import {
  ball,
  blended,
  bone,
  carved,
  disc,
  ellipsoid,
  limb,
  mirrored,
  roundBox,
  type Sdf,
  smax,
  smin,
  smoothstep,
  tilted,
  within,
} from "../../core/field/implicit.ts";
import { polygonise } from "../../core/field/polygonise.ts";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";

const SHOULDER_MM = 1430;
const HEM_MM = 330;

/** The cloak: wide at the hem, drawn to one side by the wind, its folds deepening downwards. */
const cloak: Sdf = (x, y, z) => {
  const drop = Math.max(0, Math.min(1.08, (SHOULDER_MM + 40 - z) / (SHOULDER_MM - HEM_MM)));
  const wind = 150 * drop ** 2.1;
  const px = x - wind;
  const py = y - 30 - 45 * drop ** 1.5;
  const angle = Math.atan2(py, px);
  const folds =
    drop ** 1.3 *
    (17 * Math.sin(7 * angle + 2.2 * drop + 0.6) +
      12 * Math.sin(11 * angle - 1.7 * drop) +
      6 * Math.sin(17 * angle + 3 * drop + 1));
  const flare = 1 + 0.22 * drop ** 2 * Math.max(0, Math.cos(angle - 0.25)) ** 2;
  const rx = (165 + 135 * drop ** 0.9) * flare + folds;
  const ry = 118 + 118 * drop ** 0.9 + folds;
  const k0 = Math.hypot(px / rx, py / ry);
  const side = (k0 - 1) * Math.min(rx, ry) * 0.86;
  const hem = HEM_MM + 26 * Math.sin(3 * angle + 0.8) + 60 * Math.max(0, Math.cos(angle)) ** 3;
  const ends = Math.max(hem - z, z - SHOULDER_MM - 46);
  return smax(side, ends, 40);
};

/** Open down the front, so that the coat beneath and its buttons show. */
const opening: Sdf = (x, y, z) => {
  const width = 26 + 95 * smoothstep(1350, 420, z);
  const centre = 30 * smoothstep(1300, 400, z);
  return smax(Math.abs(x - centre) - width, y + 70 + 0.02 * z, 30);
};

const coat: Sdf = (x, y, z) => {
  const drop = Math.max(0, Math.min(1, (1420 - z) / 900));
  const waist = 1 - 0.2 * Math.exp(-(((z - 1080) / 130) ** 2));
  const px = x - 34 * drop ** 2;
  const rx = (150 + 62 * drop ** 1.6) * waist + 5 * Math.sin(9 * Math.atan2(y, px)) * drop;
  const ry = (112 + 52 * drop ** 1.6) * waist;
  return smax((Math.hypot(px / rx, (y + 4) / ry) - 1) * ry * 0.9, Math.max(560 - z, z - 1440), 30);
};

const buttons = blended(
  2,
  ...[0, 1, 2, 3, 4].map((k) => ball([6 + 2 * k, -112 - (k > 1 ? 5 * (k - 1) : 0), 1330 - 110 * k], 15)),
);

const legs = blended(
  20,
  limb(
    [
      [-85, 15, 640, 84],
      [-95, -5, 380, 66],
      [-100, 5, 120, 58],
    ],
    30,
  ),
  limb(
    [
      [95, 10, 640, 84],
      [105, -35, 390, 66],
      [110, -40, 120, 58],
    ],
    30,
  ),
);
const boot = (x: number, y: number, turn: number): Sdf =>
  tilted(
    blended(
      26,
      ellipsoid([x, y - 52, 88], [54, 112, 50]),
      bone([x, y + 18, 96], [x, y + 14, 240], 62, 66),
      roundBox([x, y - 30, 62], [52, 112, 18], 14),
      disc([x, y + 12, 238], 76, 20, 16),
    ),
    [x, y, 0],
    "z",
    turn,
  );
const mound: Sdf = (x, y, z) => {
  const angle = Math.atan2(y, x - 20);
  return (
    ellipsoid([20, 5, 0], [290 + 10 * Math.sin(3 * angle), 262, 66])(x, y, z) +
    3 * Math.sin(0.031 * x + 1) * Math.sin(0.037 * y)
  );
};

const face: Sdf = carved(
  9,
  blended(
    14,
    ellipsoid([0, -6, 1610], [76, 90, 112]),
    ellipsoid([0, -60, 1548], [46, 44, 36]),
    bone([0, -92, 1636], [0, -116, 1592], 11, 19),
    mirrored(ellipsoid([38, -66, 1584], [27, 24, 22])),
    mirrored(bone([10, -90, 1652], [52, -72, 1650], 11, 10)),
    mirrored(ellipsoid([80, 4, 1604], [13, 24, 36])),
  ),
  mirrored(ellipsoid([31, -94, 1630], [18, 17, 10])),
  ellipsoid([0, -104, 1553], [24, 9, 4.5]),
);
const eyes = mirrored(ball([31, -72, 1629], 14));
const moustache = blended(
  6,
  mirrored(
    limb(
      [
        [4, -106, 1572, 13],
        [34, -96, 1562, 12],
        [64, -74, 1574, 7],
      ],
      10,
    ),
  ),
  ellipsoid([0, -84, 1522], [26, 24, 30]),
);
const hair = blended(
  16,
  mirrored(
    limb(
      [
        [70, 30, 1640, 26],
        [78, 44, 1575, 24],
        [60, 56, 1530, 20],
      ],
      20,
    ),
  ),
  ellipsoid([0, 52, 1590], [70, 48, 80]),
);

const hat: Sdf = tilted(
  tilted(
    blended(
      10,
      (x, y, z) => {
        const angle = Math.atan2(y, x);
        const lift = 16 * Math.cos(2 * angle) - 10 * Math.sin(angle);
        const r = Math.hypot(x, y * 0.93);
        const dip = lift * smoothstep(80, 170, r);
        return smax(r - 168, Math.abs(z - 1692 - dip) - 12, 12) * 0.9;
      },
      (x, y, z) => {
        const k = smoothstep(1690, 1830, z);
        return smax(
          (Math.hypot(x, y * 0.9) - (98 - 20 * k + 6 * k * k)) * 0.95,
          Math.max(1685 - z, z - 1824 + 16 * Math.exp(-((x / 30) ** 2))),
          16,
        );
      },
      disc([0, 0, 1716], 104, 12, 8),
    ),
    [0, 0, 1690],
    "x",
    7,
  ),
  [0, 0, 1690],
  "y",
  -5,
);

/** A scarf round the neck, its end carried off by the wind. */
const scarf: Sdf = (x, y, z) => {
  const r = Math.hypot(x, (y - 4) * 1.06) - 84;
  const ring = Math.hypot(r, (z - 1478 - 0.16 * y) * 0.85) - 38 + 4 * Math.sin(8 * Math.atan2(y, x) + 0.05 * z);
  return smin(ring, tail(x, y, z), 18);
};
const tail = limb(
  [
    [60, 74, 1480, 36],
    [150, 118, 1468, 33],
    [236, 128, 1420, 34],
    [316, 142, 1410, 30],
    [372, 150, 1372, 32],
  ],
  22,
);

/** The arm that holds up the lamp, and the gap under it. */
const raisedArm = limb(
  [
    [-150, 10, 1392, 82],
    [-268, -28, 1412, 66],
    [-368, -62, 1452, 60],
    [-376, -96, 1560, 52],
    [-366, -124, 1660, 45],
  ],
  34,
);
const cuff = tilted(disc([-369, -116, 1628], 58, 26, 14), [-369, -116, 1628], "x", -14);
const hand = blended(
  8,
  ellipsoid([-364, -134, 1706], [38, 34, 44]),
  ...[0, 1, 2, 3].map((k) =>
    limb(
      [
        [-398, -146 + 6 * k, 1692 + 13 * k, 11],
        [-384, -176, 1690 + 13 * k, 11],
        [-350, -176, 1690 + 13 * k, 10],
      ],
      6,
    ),
  ),
  limb(
    [
      [-336, -130, 1716, 13],
      [-336, -164, 1734, 11],
    ],
    6,
  ),
);
const lamp = blended(
  3,
  bone([-362, -156, 1640], [-362, -156, 1762], 16, 16),
  disc([-362, -156, 1762], 54, 9, 6),
  (x, y, z) => smax(hexagon(x + 362, y + 156, 44 + 0.14 * (z - 1762)), Math.max(1762 - z, z - 1852), 3),
  (x, y, z) => smax((Math.hypot(x + 362, y + 156) - (74 - 1.35 * (z - 1852))) * 0.6, 1846 - z, 6),
  ball([-362, -156, 1888], 17),
);
const panes = blended(
  1,
  ...[0, 1, 2, 3, 4, 5].map((k) =>
    tilted(roundBox([-362 + 52, -156, 1808], [9, 19, 32], 4), [-362, -156, 1808], "z", 60 * k + 30),
  ),
);

function hexagon(x: number, y: number, r: number): number {
  const ax = Math.abs(x);
  const ay = Math.abs(y);
  return Math.max(ax * 0.866 + ay * 0.5, ay) - r;
}

/** The other arm gathers the cloak at the chest. */
const restingArm = limb(
  [
    [160, 14, 1386, 84],
    [236, -30, 1230, 70],
    [228, -96, 1120, 60],
    [120, -158, 1140, 46],
  ],
  36,
);
const restingHand = blended(
  8,
  ellipsoid([86, -170, 1150], [44, 30, 36]),
  ...[0, 1, 2, 3].map((k) =>
    limb(
      [
        [76, -186, 1172 - 15 * k, 12],
        [44, -188, 1166 - 15 * k, 11],
        [26, -168, 1162 - 15 * k, 10],
      ],
      6,
    ),
  ),
);

const cape: Sdf = (x, y, z) => {
  const drop = Math.max(0, Math.min(1.1, (1480 - z) / 230));
  const angle = Math.atan2(y - 10, x);
  const ripple = 8 * drop * Math.sin(9 * angle + 1.5 * drop);
  const rx = 104 + 142 * drop ** 0.75 + ripple;
  const ry = 92 + 84 * drop ** 0.75 + ripple;
  const hem = 1262 + 18 * Math.sin(4 * angle + 1);
  return smax((Math.hypot(x / rx, (y - 10) / ry) - 1) * Math.min(rx, ry) * 0.8, Math.max(hem - z, z - 1490), 22);
};

const head: Sdf = (x, y, z) => {
  let d = smin(face(x, y, z), eyes(x, y, z), 3);
  d = smin(d, moustache(x, y, z), 5);
  d = smin(d, hair(x, y, z), 8);
  return smin(d, hat(x, y, z), 6);
};
const lampHand: Sdf = (x, y, z) => smin(smin(cuff(x, y, z), hand(x, y, z), 6), lantern(x, y, z), 4);
const chestHand: Sdf = (x, y, z) => smin(restingArm(x, y, z), restingHand(x, y, z), 8);
const [leftBoot, rightBoot] = [boot(-102, 4, -8), boot(112, -40, 10)];
const boots: Sdf = (x, y, z) => Math.min(leftBoot(x, y, z), rightBoot(x, y, z));
const lantern = carved(3, lamp, panes);

const draped = carved(18, cloak, opening);
const trunk = blended(16, coat, within([-200, -140, 60], [220, 120, 740], legs));

/** The parts with the blend each joins the rest by, in order. */
const PARTS: readonly (readonly [Sdf, number])[] = [
  [within([-450, -190, 1300], [-60, 110, 1720], raisedArm), 42],
  [within([-270, -200, 1220], [270, 200, 1500], cape), 14],
  [within([-20, -160, 870], [40, -80, 1360], buttons), 4],
  [within([60, -240, 1040], [330, 120, 1480], chestHand), 22],
  [within([-460, -260, 1580], [-270, -60, 1930], lampHand), 4],
  [within([-200, -200, 1480], [200, 200, 1860], head), 14],
  [within([-140, -140, 1400], [410, 200, 1540], scarf), 10],
  [within([-200, -220, 0], [220, 120, 280], boots), 12],
  [mound, 22],
];

const lamplighter: Sdf = (x, y, z) => {
  let d = smin(draped(x, y, z), trunk(x, y, z), 10);
  for (const [part, blend] of PARTS) d = smin(d, part(x, y, z), blend);
  return d;
};

export function makeLamplighter(stepMm = 5.2): TriangleMesh {
  return polygonise(lamplighter, { min: [-480, -330, 0], max: [620, 420, 1960] }, stepMm, 3.2);
}
