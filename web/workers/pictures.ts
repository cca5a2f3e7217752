/** Pictures that a worker draws, as PNG. */
import { SECTION_PIGMENTS } from "../../core/display/palette.ts";
import { drawPortrait, type Portrait } from "../../core/display/portrait.ts";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";
import type { Direction } from "../../core/space/directions.ts";

const FROM: Direction = [-0.6, -1, 0.3];
const COVER = { width: 480, height: 400 };
const OFFER = { width: 150, height: 150 };
const PLASTER = [232, 226, 214] as const;

/** A piece as it stands on the shelf. */
export function coverPicture(piece: TriangleMesh): Promise<Blob> {
  return png(drawPortrait(piece, COVER.width, COVER.height, FROM, PLASTER));
}

/** A plan among others. @param label the section of each vertex */
export function offerPicture(mesh: TriangleMesh, label: Uint8Array): Promise<Blob> {
  return png(drawPortrait(mesh, OFFER.width, OFFER.height, FROM, labelTints(label)));
}

function png({ width, height, pixels }: Portrait): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const image = new ImageData(pixels as Uint8ClampedArray<ArrayBuffer>, width, height);
  canvas.getContext("2d")?.putImageData(image, 0, 0);
  return canvas.convertToBlob({ type: "image/png" });
}

/** sRGB of each vertex by its section's pigment. */
function labelTints(label: Uint8Array): Uint8Array {
  const pigments = SECTION_PIGMENTS.map(({ css }) => [1, 3, 5].map((at) => Number.parseInt(css.slice(at, at + 2), 16)));
  const out = new Uint8Array(3 * label.length);
  for (let v = 0; v < label.length; v++) out.set(pigments[label[v] % pigments.length], 3 * v);
  return out;
}
