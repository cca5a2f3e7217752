/** A tag of paper with a few words on it, always facing the viewer and never hidden. */
import * as THREE from "three";
import { TEXT_FACE } from "./faces.ts";
import { paper } from "./materials.ts";

export function tag(text: string, at: THREE.Vector3, heightMm: number, row: number): THREE.Sprite {
  const canvas = new OffscreenCanvas(200, 72);
  const pen = canvas.getContext("2d");
  const font = `600 44px "${TEXT_FACE}", sans-serif`;
  let width = 200;
  if (pen) {
    pen.font = font;
    width = Math.ceil(pen.measureText(text).width) + 48;
    canvas.width = width;
    pen.font = font;
    pen.fillStyle = "#fbf9f5";
    pen.strokeStyle = "#b3401f";
    pen.lineWidth = 5;
    pen.beginPath();
    pen.roundRect(3, 3, width - 6, 66, 8);
    pen.fill();
    pen.stroke();
    pen.fillStyle = "#9a2c12";
    pen.textBaseline = "middle";
    pen.fillText(text, 24, 38);
  }
  const texture = new THREE.CanvasTexture(canvas);
  texture.colorSpace = THREE.SRGBColorSpace;
  const sprite = new THREE.Sprite(paper(texture));
  sprite.scale.set((heightMm * width) / 72, heightMm, 1);
  // Tags of neighbouring places stand one above the other.
  sprite.center.set(0.5, -0.25 - 1.15 * row);
  sprite.position.copy(at);
  sprite.renderOrder = 3;
  return sprite;
}
