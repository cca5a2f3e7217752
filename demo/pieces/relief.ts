/** A relief of gulls over waves, 900 x 600 mm, standing proud of its slab by up to 70 mm. Lies face up on the board. */

import { type Sdf, smin, smoothstep } from "../../core/field/implicit.ts";
import { polygonise } from "../../core/field/polygonise.ts";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";

const SLAB_MM = 34;

/** Height of the sea at a place: rows of breaking waves, larger towards the foot. */
function sea(x: number, y: number): number {
  if (y > 20) return 0;
  const depth = smoothstep(20, -300, y);
  let height = 4;
  for (let row = 0; row < 5; row++) {
    const crest = -6 - 62 * row - 10 * Math.sin(x / (90 + 14 * row) + 1.7 * row) - 5 * Math.sin(x / 37 + row);
    const t = (y - crest) / (24 + 7 * row);
    const lift = (13 + 6.5 * row) * Math.exp(-(t > 0 ? t * t * 2.6 : t * t * 0.5));
    const curl = 2.4 * Math.sin(x / 11 + 5 * Math.sin(x / 70 + row)) * Math.exp(-((t - 0.2) ** 2) * 9);
    height = Math.max(height, lift + curl);
  }
  return height * (0.55 + 0.45 * depth) + 1.6 * Math.sin(x / 16 + y / 9) * depth;
}

interface Gull {
  readonly x: number;
  readonly y: number;
  readonly size: number;
  readonly turn: number;
  readonly lift: number;
  readonly beat: number;
}

const GULLS: readonly Gull[] = [
  { x: -190, y: 150, size: 1.5, turn: 14, lift: 30, beat: 0.35 },
  { x: 140, y: 205, size: 1.05, turn: -18, lift: 22, beat: 0.75 },
  { x: 290, y: 92, size: 1.2, turn: 8, lift: 26, beat: 0.1 },
  { x: -10, y: 60, size: 0.72, turn: -6, lift: 16, beat: 0.55 },
  { x: -350, y: 232, size: 0.6, turn: 24, lift: 13, beat: 0.9 },
];

/** Height of one gull over the sky at a place, seen from the side, wings spread. */
function gull(g: Gull, x: number, y: number): number {
  const a = (g.turn * Math.PI) / 180;
  const u = ((x - g.x) * Math.cos(a) + (y - g.y) * Math.sin(a)) / g.size;
  const v = (-(x - g.x) * Math.sin(a) + (y - g.y) * Math.cos(a)) / g.size;
  let top = lens(u, v, 0, 0, 46, 15) * 1.1;
  top = Math.max(
    top,
    lens(u, v, 48, 7, 15, 12) * 0.95,
    lens(u, v, 68, 4, 14, 4.5) * 0.5,
    lens(u, v, -54, -4, 24, 8) * 0.6,
  );
  for (const side of [1, -1]) {
    const t = side > 0 ? (v - 4) / (92 - 22 * g.beat) : (4 - v) / (58 + 30 * g.beat);
    if (t < 0 || t > 1) continue;
    const spine = 16 + 34 * Math.sin(2.2 * t) - 62 * t * t * (1 - 0.3 * g.beat);
    const width = 25 * (1 - t) ** 0.6 + 3;
    const across = (u - spine + width * 0.5) / width;
    if (Math.abs(across) > 1) continue;
    const feathers = across < 0.2 ? 0.12 * Math.abs(Math.sin(u / 3.2 + 7 * t)) * smoothstep(0.15, 0.5, t) : 0;
    top = Math.max(top, (1 - across * across) ** 0.5 * (0.78 - 0.4 * t - feathers));
  }
  return top <= 0 ? 0 : g.lift * g.size ** 0.5 * top;
}

function lens(u: number, v: number, cu: number, cv: number, ru: number, rv: number): number {
  const s = 1 - ((u - cu) / ru) ** 2 - ((v - cv) / rv) ** 2;
  return s > 0 ? Math.sqrt(s) : 0;
}

function sun(x: number, y: number): number {
  const r = Math.hypot(x - 300, y - 235);
  if (r < 52) return 6;
  const ray = Math.cos(14 * Math.atan2(y - 235, x - 300));
  return r < 200 ? 2.6 * Math.max(0, ray) ** 2 * smoothstep(200, 60, r) : 0;
}

function surface(x: number, y: number): number {
  let h = SLAB_MM + 1.2 * Math.sin(x / 47 + 2 * Math.sin(y / 60)) * smoothstep(0, 80, y) + sun(x, y);
  h = Math.max(h, SLAB_MM + sea(x, y));
  for (const g of GULLS) h = Math.max(h, SLAB_MM + gull(g, x, y));
  const frame = Math.max(Math.abs(x) - 428, Math.abs(y) - 278);
  return frame > 0
    ? Math.max(h * (1 - smoothstep(0, 3, frame)), SLAB_MM + 16 * smoothstep(0, 6, frame) + 2 * Math.sin(frame / 2.4))
    : h;
}

const relief: Sdf = (x, y, z) => {
  const edge = Math.max(Math.abs(x) - 450, Math.abs(y) - 300);
  const inward = 0.02 * z;
  return Math.max(
    (z - surface(Math.max(-449, Math.min(449, x)), Math.max(-299, Math.min(299, y)))) * 0.62,
    -smin(-edge - inward, 400, 4),
    -z,
  );
};

export function makeRelief(stepMm = 3): TriangleMesh {
  return polygonise(relief, { min: [-452, -302, 0], max: [452, 302, 118] }, stepMm, 3);
}
