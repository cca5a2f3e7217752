/** Graphs of a mesh's vertices, or of patches of them: edges with the seams that cutting them makes, and neighbours. */
import type { TriangleMesh } from "../../mesh/mesh.ts";
import { perMesh } from "../../mesh/perMesh.ts";

/** The graph of a mesh's vertices: its edges with the length of seam that cutting each one makes. */
export interface VertexGraph {
  readonly vertices: number;
  /** Vertex pairs, two an edge. */
  readonly edges: Uint32Array;
  /** Length of the dual edge, mm; times its weight where seams are weighted. */
  readonly seamMm: Float32Array;
}

/** Gathers a graph's edges, each once, with the lengths of its seams added up. */
export class GraphBuilder {
  private readonly number = new Map<number, number>();
  private readonly edges: number[] = [];
  private readonly seamMm: number[] = [];

  constructor(private readonly vertices: number) {}

  /** Adds a length of seam between two vertices, in either order. */
  add(one: number, other: number, seamMm: number): void {
    const a = Math.min(one, other);
    const b = Math.max(one, other);
    const key = a * this.vertices + b;
    let n = this.number.get(key);
    if (n === undefined) {
      n = this.seamMm.length;
      this.number.set(key, n);
      this.edges.push(a, b);
      this.seamMm.push(0);
    }
    this.seamMm[n] += seamMm;
  }

  build(): VertexGraph {
    return {
      vertices: this.vertices,
      edges: Uint32Array.from(this.edges),
      seamMm: Float32Array.from(this.seamMm),
    };
  }
}

/** @param weight how many times a seam counts at each vertex; once where left out */
export function vertexGraph(mesh: TriangleMesh, weight: Float32Array | null = null): VertexGraph {
  const { positions: p, triangles: t } = mesh;
  const builder = new GraphBuilder(p.length / 3);
  for (let k = 0; k < t.length; k += 3) {
    const centre = [0, 1, 2].map((a) => (p[3 * t[k] + a] + p[3 * t[k + 1] + a] + p[3 * t[k + 2] + a]) / 3);
    for (let e = 0; e < 3; e++) {
      const a = t[k + e];
      const b = t[k + ((e + 1) % 3)];
      let reach2 = 0;
      for (let x = 0; x < 3; x++) reach2 += ((p[3 * a + x] + p[3 * b + x]) / 2 - centre[x]) ** 2;
      builder.add(a, b, Math.sqrt(reach2) * (weight ? (weight[a] + weight[b]) / 2 : 1));
    }
  }
  return builder.build();
}

/** Neighbour lists of a graph in compressed rows; `edge` names the edge a neighbour is reached by. */
export interface Neighbours {
  readonly start: Uint32Array;
  readonly list: Uint32Array;
  readonly edge: Uint32Array;
}

export function neighbours(graph: VertexGraph): Neighbours {
  const start = new Uint32Array(graph.vertices + 1);
  for (const v of graph.edges) start[v + 1]++;
  for (let v = 0; v < graph.vertices; v++) start[v + 1] += start[v];
  const cursor = start.slice();
  const list = new Uint32Array(graph.edges.length);
  const edge = new Uint32Array(graph.edges.length);
  for (let e = 0; e < graph.seamMm.length; e++) {
    const a = graph.edges[2 * e];
    const b = graph.edges[2 * e + 1];
    list[cursor[a]] = b;
    edge[cursor[a]++] = e;
    list[cursor[b]] = a;
    edge[cursor[b]++] = e;
  }
  return { start, list, edge };
}

/** Neighbour lists of a mesh's vertices, by its unweighted graph. */
export const meshNeighbours = perMesh((mesh: TriangleMesh): Neighbours => neighbours(vertexGraph(mesh)));
