/**
 * The solid-modelling kernel: exact unions, differences and intersections of closed bodies. It is a module of WebAssembly
 * that the host provides once; bodies live in its memory until they are let go of, which `withSolids` sees to.
 */
import createKernel, { type Manifold, type ManifoldToplevel } from "manifold-3d";
import { labelParts } from "../mesh/adjacency.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { partVolumes } from "../mesh/pockets.ts";
import { dropUnusedVertices } from "../mesh/weld.ts";

export type Solid = Manifold;
export type Kernel = ManifoldToplevel;

let provided: (() => Promise<ArrayBufferLike | Uint8Array>) | null = null;
let loaded: Promise<Kernel> | null = null;

/** How the host reads the kernel's WebAssembly; where nothing is provided it is read from where it is installed. */
export function provideSolidKernel(read: () => Promise<ArrayBufferLike | Uint8Array>): void {
  provided = read;
  loaded = null;
}

async function load(): Promise<Kernel> {
  const options = provided ? { wasmBinary: await provided() } : {};
  const kernel = await createKernel(options as never);
  kernel.setup();
  return kernel;
}

/** A body that cannot be one: open, or folded into itself. */
export class NotASolid extends Error {
  override readonly name = "NotASolid";
  constructor(what: string, cause: unknown) {
    super(`${what} is no closed body: it is open, or folded into itself.`, { cause });
  }
}

/** Bodies that are made within a call, and let go of after it. */
export class Solids {
  private readonly made: Solid[] = [];

  constructor(readonly kernel: Kernel) {}

  /** Notes a body, so that it is let go of at the end. */
  keep(solid: Solid): Solid {
    this.made.push(solid);
    return solid;
  }

  /** The body that some work ends with: what else was made on the way is let go of. */
  only(work: () => Solid): Solid {
    const before = this.made.length;
    const solid = work();
    // Bodies are worked out when they are first asked about, and hold what they are made of until then.
    solid.numTri();
    const made = this.made.splice(before);
    for (const other of made) if (other !== solid) other.delete();
    return made.includes(solid) ? this.keep(solid) : solid;
  }

  /** Lets go of bodies, once what was made of them is worked out. */
  letGo(used: readonly Solid[], ...of: readonly Solid[]): void {
    for (const solid of of) solid.numTri();
    for (const solid of used) {
      this.made.splice(this.made.indexOf(solid), 1);
      solid.delete();
    }
  }

  /** @throws NotASolid */
  fromMesh(mesh: TriangleMesh, what: string): Solid {
    const { Manifold: Body, Mesh } = this.kernel;
    const triangles = new Mesh({
      numProp: 3,
      vertProperties: Float32Array.from(mesh.positions),
      triVerts: Uint32Array.from(mesh.triangles),
    });
    try {
      return this.keep(new Body(triangles));
    } catch (error) {
      throw new NotASolid(what, error);
    }
  }

  /** All in one; an empty body where there are none. */
  union(solids: readonly Solid[]): Solid {
    return this.keep(this.kernel.Manifold.union(solids as Solid[]));
  }

  hull(points: readonly (readonly [number, number, number])[]): Solid {
    return this.keep(this.kernel.Manifold.hull(points as unknown as [number, number, number][]));
  }

  /** Rings drawn up between two heights; a ring within another is a hole. */
  extruded(rings: readonly (readonly (readonly [number, number])[])[], fromMm: number, toMm: number): Solid {
    if (rings.length === 0) return this.union([]);
    const { CrossSection } = this.kernel;
    const section = new CrossSection(rings as unknown as [number, number][][], "EvenOdd");
    const body = this.keep(section.extrude(toMm - fromMm));
    section.delete();
    return this.keep(body.translate([0, 0, fromMm]));
  }

  minus(a: Solid, b: Solid): Solid {
    return this.keep(a.subtract(b));
  }

  and(a: Solid, b: Solid): Solid {
    return this.keep(a.intersect(b));
  }

  /** What of a body lies within another, and the rest of it: their faces coincide. */
  split(solid: Solid, by: Solid): { readonly within: Solid; readonly rest: Solid } {
    const [within, rest] = solid.split(by);
    return { within: this.keep(within), rest: this.keep(rest) };
  }

  /** The same of fewer triangles, none of which strays by more than so much, mm. */
  simpler(solid: Solid, byMm: number): Solid {
    return this.keep(solid.simplify(byMm));
  }

  /** What lies above a height. */
  above(solid: Solid, heightMm: number): Solid {
    return this.keep(solid.trimByPlane([0, 0, 1], heightMm));
  }

  /** What lies below a height. */
  below(solid: Solid, heightMm: number): Solid {
    return this.keep(solid.trimByPlane([0, 0, -1], -heightMm));
  }

  /** Its pieces that hang together and are no smaller than a volume, the largest first. */
  pieces(solid: Solid, leastMm3: number): Solid[] {
    const mesh = meshOf(solid);
    const { part, parts } = labelParts(mesh);
    if (parts === 1) return solid.volume() >= leastMm3 ? [solid] : [];
    const { positions, triangles } = mesh;
    const volumesMm3 = partVolumes(mesh, part, parts);
    const large = [...volumesMm3.keys()].filter((n) => volumesMm3[n] >= leastMm3);
    // The kernel's own way makes a body of every scrap.
    return large
      .sort((a, b) => volumesMm3[b] - volumesMm3[a])
      .map((n) => {
        const own: number[] = [];
        triangles.forEach((corner, k) => {
          if (part[Math.floor(k / 3)] === n) own.push(corner);
        });
        const piece = dropUnusedVertices({ positions, triangles: Uint32Array.from(own) });
        return this.fromMesh(piece, "A piece of a section");
      });
  }

  release(): void {
    for (const solid of this.made) solid.delete();
    this.made.length = 0;
  }
}

/** Works with bodies, and lets go of all of them afterwards. */
export async function withSolids<T>(work: (solids: Solids) => T | Promise<T>): Promise<T> {
  loaded ??= load();
  const solids = new Solids(await loaded);
  try {
    return await work(solids);
  } finally {
    solids.release();
  }
}

/** A body as a mesh of its own. */
export function meshOf(solid: Solid): TriangleMesh {
  const { numProp, vertProperties, triVerts, numVert } = solid.getMesh();
  const positions = new Float32Array(3 * numVert);
  for (let v = 0; v < numVert; v++) for (let a = 0; a < 3; a++) positions[3 * v + a] = vertProperties[numProp * v + a];
  return { positions, triangles: Uint32Array.from(triVerts) };
}
