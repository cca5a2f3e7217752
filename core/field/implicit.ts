/** Implicit bodies: signed distances (mm, negative inside) and the ways to join them. */
export type Sdf = (x: number, y: number, z: number) => number;
export type P3 = readonly [number, number, number];

/** As Math.hypot, which is many times slower since it guards against numbers too large to be squared. */
const length = (x: number, y: number, z = 0) => Math.sqrt(x * x + y * y + z * z);

export const ball =
  (c: P3, r: number): Sdf =>
  (x, y, z) =>
    length(x - c[0], y - c[1], z - c[2]) - r;

/** Ellipsoid (first-order distance, after Quilez): good near the surface. */
export const ellipsoid =
  (c: P3, r: P3): Sdf =>
  (x, y, z) => {
    const ux = (x - c[0]) / r[0],
      uy = (y - c[1]) / r[1],
      uz = (z - c[2]) / r[2];
    const k0 = length(ux, uy, uz);
    const k1 = length(ux / r[0], uy / r[1], uz / r[2]);
    return k1 < 1e-9 ? -Math.min(...r) : (k0 * (k0 - 1)) / k1;
  };

/** A bone from a to b with its own radius at each end. */
export const bone = (a: P3, b: P3, ra: number, rb: number): Sdf => {
  const ab = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const length2 = ab[0] ** 2 + ab[1] ** 2 + ab[2] ** 2;
  return (x, y, z) => {
    const px = x - a[0],
      py = y - a[1],
      pz = z - a[2];
    const s = Math.max(0, Math.min(1, (px * ab[0] + py * ab[1] + pz * ab[2]) / length2));
    return length(px - s * ab[0], py - s * ab[1], pz - s * ab[2]) - (ra + (rb - ra) * s);
  };
};

/** Bones through a row of points. */
export const limb = (points: readonly (readonly [number, number, number, number])[], blend = 12): Sdf => {
  const bones = points
    .slice(1)
    .map((p, k) => bone([points[k][0], points[k][1], points[k][2]], [p[0], p[1], p[2]], points[k][3], p[3]));
  return blended(blend, ...bones);
};

export const roundBox =
  (c: P3, half: P3, r: number): Sdf =>
  (x, y, z) => {
    const qx = Math.abs(x - c[0]) - half[0] + r,
      qy = Math.abs(y - c[1]) - half[1] + r,
      qz = Math.abs(z - c[2]) - half[2] + r;
    return length(Math.max(qx, 0), Math.max(qy, 0), Math.max(qz, 0)) + Math.min(Math.max(qx, qy, qz), 0) - r;
  };

/** Upright disc with rounded edge. */
export const disc =
  (c: P3, radius: number, halfHeight: number, r: number): Sdf =>
  (x, y, z) => {
    const qr = length(x - c[0], y - c[1]) - radius + r;
    const qz = Math.abs(z - c[2]) - halfHeight + r;
    return length(Math.max(qr, 0), Math.max(qz, 0)) + Math.min(Math.max(qr, qz), 0) - r;
  };

/** Smooth union of two (polynomial, Quilez). */
export function smin(a: number, b: number, k: number): number {
  const h = Math.max(k - Math.abs(a - b), 0) / k;
  return Math.min(a, b) - h * h * k * 0.25;
}

export function smax(a: number, b: number, k: number): number {
  return -smin(-a, -b, k);
}

export const blended =
  (k: number, ...bodies: readonly Sdf[]): Sdf =>
  (x, y, z) => {
    let d = bodies[0](x, y, z);
    for (let n = 1; n < bodies.length; n++) d = smin(d, bodies[n](x, y, z), k);
    return d;
  };

export const carved =
  (k: number, body: Sdf, ...tools: readonly Sdf[]): Sdf =>
  (x, y, z) => {
    let d = body(x, y, z);
    for (const tool of tools) d = smax(d, -tool(x, y, z), k);
    return d;
  };

/** A body moved and turned: rotation about an axis through the pivot (degrees). */
export const tilted = (body: Sdf, pivot: P3, axis: "x" | "y" | "z", degrees: number): Sdf => {
  const c = Math.cos((-degrees * Math.PI) / 180),
    s = Math.sin((-degrees * Math.PI) / 180);
  return (x, y, z) => {
    const px = x - pivot[0],
      py = y - pivot[1],
      pz = z - pivot[2];
    if (axis === "x") return body(x, pivot[1] + c * py - s * pz, pivot[2] + s * py + c * pz);
    if (axis === "y") return body(pivot[0] + c * px + s * pz, y, pivot[2] - s * px + c * pz);
    return body(pivot[0] + c * px - s * py, pivot[1] + s * px + c * py, z);
  };
};

/** A body known to lie in a box: far from the box its distance stands in for the body's, which is quicker. */
export const within =
  (min: P3, max: P3, body: Sdf): Sdf =>
  (x, y, z) => {
    const dx = Math.max(min[0] - x, x - max[0], 0),
      dy = Math.max(min[1] - y, y - max[1], 0),
      dz = Math.max(min[2] - z, z - max[2], 0);
    const far = length(dx, dy, dz);
    return far > 75 ? far : body(x, y, z);
  };

/** Both sides of x = 0. */
export const mirrored =
  (body: Sdf): Sdf =>
  (x, y, z) =>
    body(Math.abs(x), y, z);

export function smoothstep(from: number, to: number, value: number): number {
  const t = Math.max(0, Math.min(1, (value - from) / (to - from)));
  return t * t * (3 - 2 * t);
}
