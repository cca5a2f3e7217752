/** The app's faces for what is written on the stage: its thread has no style sheet. */

import figures from "@fontsource/saira-stencil-one/files/saira-stencil-one-latin-400-normal.woff2?url";
import text from "@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2?url";

export const TEXT_FACE = "Atkinson Hyperlegible Next Variable";
export const STENCIL_FACE = "Saira Stencil One";

/** Loads both faces; without them the figures are written in the browser's own. */
export async function loadFaces(): Promise<void> {
  const { fonts } = self as unknown as { fonts?: FontFaceSet };
  if (!fonts) return;
  const faces = [
    new FontFace(STENCIL_FACE, `url(${figures})`),
    new FontFace(TEXT_FACE, `url(${text})`, { weight: "200 800" }),
  ];
  for (const face of faces) {
    fonts.add(face);
    await face.load().catch(() => undefined);
  }
}
