/** Core meshes as three.js geometry. */
import * as THREE from "three";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";
import { vertexNormals } from "../../core/mesh/normals.ts";

const known = new WeakMap<TriangleMesh, ReturnType<typeof vertexNormals>>();

/** Normals and areas of a shown mesh's vertices; worked out once a mesh. */
function normalsOf(mesh: TriangleMesh): ReturnType<typeof vertexNormals> {
  const held = known.get(mesh) ?? vertexNormals(mesh);
  known.set(mesh, held);
  return held;
}

export function geometryOf(mesh: TriangleMesh): THREE.BufferGeometry {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute("position", new THREE.BufferAttribute(mesh.positions, 3));
  geometry.setAttribute("normal", new THREE.BufferAttribute(normalsOf(mesh).normals, 3));
  geometry.setIndex(new THREE.BufferAttribute(mesh.triangles, 1));
  geometry.computeBoundingSphere();
  geometry.computeBoundingBox();
  return geometry;
}

/** Paints each vertex by a class or a share. */
export function paint(geometry: THREE.BufferGeometry, colourOf: (vertex: number) => THREE.Color): void {
  const count = geometry.getAttribute("position").count;
  const colours = new Float32Array(count * 3);
  for (let v = 0; v < count; v++) colourOf(v).toArray(colours, 3 * v);
  geometry.setAttribute("color", new THREE.BufferAttribute(colours, 3));
}

/** A line laid on the surface like marker: a thin tube through its points. */
export function markerLine(points: Float32Array, closed: boolean, radiusMm: number): THREE.BufferGeometry {
  const path: THREE.Vector3[] = [];
  const every = Math.max(1, Math.floor(points.length / 3 / 400));
  for (let k = 0; k < points.length / 3; k += every)
    path.push(new THREE.Vector3(points[3 * k], points[3 * k + 1], points[3 * k + 2]));
  if (!closed && path.length > 0) path.push(new THREE.Vector3(...points.subarray(points.length - 3)));
  return new THREE.TubeGeometry(new THREE.CatmullRomCurve3(path, closed), path.length * 2, radiusMm, 5, closed);
}

/** Where to stencil a section's number: the point of its skin nearest its middle, and the way it faces. */
export function stencilPlace(mesh: TriangleMesh): { at: THREE.Vector3; facing: THREE.Vector3 } {
  const { normals, areasMm2 } = normalsOf(mesh);
  const p = mesh.positions;
  const sums = [0, 0, 0, 0, 0, 0];
  let total = 0;
  for (let v = 0; v < areasMm2.length; v++) {
    const w = areasMm2[v];
    total += w;
    for (let a = 0; a < 3; a++) {
      sums[a] += w * p[3 * v + a];
      sums[3 + a] += w * normals[3 * v + a];
    }
  }
  const [mx, my, mz] = sums.slice(0, 3).map((sum) => sum / (total || 1));
  const mean = new THREE.Vector3(sums[3], sums[4], sums[5]).normalize();
  let best = 0;
  let least = Infinity;
  for (let v = 0; v < areasMm2.length; v++) {
    const dx = p[3 * v] - mx;
    const dy = p[3 * v + 1] - my;
    const dz = p[3 * v + 2] - mz;
    const out = dx * mean.x + dy * mean.y + dz * mean.z;
    const facing = normals[3 * v] * mean.x + normals[3 * v + 1] * mean.y + normals[3 * v + 2] * mean.z;
    // Near the middle, facing out, and where the skin stands proud.
    const cost = Math.sqrt(dx * dx + dy * dy + dz * dz) - 0.8 * out + 220 * (1 - facing);
    if (cost < least) {
      least = cost;
      best = v;
    }
  }
  const facing = new THREE.Vector3(normals[3 * best], normals[3 * best + 1], normals[3 * best + 2]);
  return {
    at: new THREE.Vector3(p[3 * best], p[3 * best + 1], p[3 * best + 2]),
    facing: facing.lerp(mean, 0.5).normalize(),
  };
}
