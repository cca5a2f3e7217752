/** A section's number, stencilled on it. */
import * as THREE from "three";
import { SECTION_PIGMENTS } from "../../core/display/palette.ts";
import { STENCIL_FACE } from "./faces.ts";

/** Seen flatter than this (cosine) a number is gone; from FULL on it is there: edge-on it would hang as a streak in the air. */
const GONE = 0.15;
const FULL = 0.35;

export function stencil(number: number, at: THREE.Vector3, facing: THREE.Vector3, sizeMm: number): THREE.Mesh {
  const side = 256;
  const canvas = new OffscreenCanvas(side, side);
  const pen = canvas.getContext("2d");
  if (pen) {
    const { figure } = SECTION_PIGMENTS[(number - 1) % SECTION_PIGMENTS.length];
    pen.font = `200px "${STENCIL_FACE}", sans-serif`;
    pen.textAlign = "center";
    pen.textBaseline = "middle";
    pen.fillStyle = figure === "light" ? "#ffffff" : "#22303a";
    pen.fillText(String(number), side / 2, side / 2 + 10);
  }
  const texture = new THREE.CanvasTexture(canvas);
  texture.colorSpace = THREE.SRGBColorSpace;
  const material = new THREE.MeshBasicMaterial({ map: texture, transparent: true, depthWrite: false });
  const mesh = new THREE.Mesh(new THREE.PlaneGeometry(sizeMm, sizeMm), material);
  const right = new THREE.Vector3().crossVectors(new THREE.Vector3(0, 0, 1), facing);
  if (right.lengthSq() < 1e-4) right.set(1, 0, 0);
  right.normalize();
  const up = new THREE.Vector3().crossVectors(facing, right);
  mesh.quaternion.setFromRotationMatrix(new THREE.Matrix4().makeBasis(right, up, facing));
  mesh.position.copy(at).addScaledVector(facing, sizeMm * 0.07);
  mesh.renderOrder = 1;
  const way = new THREE.Vector3();
  mesh.onBeforeRender = (_renderer, _scene, camera) => {
    way.setFromMatrixPosition(camera.matrixWorld);
    way.sub(new THREE.Vector3().setFromMatrixPosition(mesh.matrixWorld)).normalize();
    material.opacity = THREE.MathUtils.clamp((way.dot(facing) - GONE) / (FULL - GONE), 0, 1);
  };
  return mesh;
}
