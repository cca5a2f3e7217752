/** Core meshes as three.js geometry. */
import * as THREE from "three";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";
import { vertexNormals } from "../../core/survey/survey.ts";

export function geometryOf(mesh: TriangleMesh): THREE.BufferGeometry {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute("position", new THREE.BufferAttribute(mesh.positions, 3));
  geometry.setAttribute("normal", new THREE.BufferAttribute(vertexNormals(mesh).normals, 3));
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
  const { normals, areasMm2 } = vertexNormals(mesh);
  const p = mesh.positions;
  const middle = new THREE.Vector3();
  const mean = new THREE.Vector3();
  let total = 0;
  for (let v = 0; v < areasMm2.length; v++) {
    const w = areasMm2[v];
    total += w;
    middle.add(new THREE.Vector3(p[3 * v], p[3 * v + 1], p[3 * v + 2]).multiplyScalar(w));
    mean.add(new THREE.Vector3(normals[3 * v], normals[3 * v + 1], normals[3 * v + 2]).multiplyScalar(w));
  }
  middle.divideScalar(total || 1);
  mean.normalize();
  let best = 0;
  let least = Infinity;
  const at = new THREE.Vector3();
  const n = new THREE.Vector3();
  for (let v = 0; v < areasMm2.length; v++) {
    at.set(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
    n.set(normals[3 * v], normals[3 * v + 1], normals[3 * v + 2]);
    // Near the middle, facing out, and where the skin stands proud.
    const cost = at.distanceTo(middle) - 0.8 * at.clone().sub(middle).dot(mean) + 220 * (1 - n.dot(mean));
    if (cost < least) {
      least = cost;
      best = v;
    }
  }
  return {
    at: new THREE.Vector3(p[3 * best], p[3 * best + 1], p[3 * best + 2]),
    facing: new THREE.Vector3(normals[3 * best], normals[3 * best + 1], normals[3 * best + 2])
      .lerp(mean, 0.5)
      .normalize(),
  };
}
