/** A plan as one GLB: the jacket and the sections in their pigments, and the piece where it is wanted. */
import { linearRgb, SECTION_PIGMENTS } from "../display/palette.ts";
import type { TriangleMesh } from "../mesh/mesh.ts";
import { type NamedPart, writeGlb } from "./glb.ts";

/** Plaster, and silicone that one sees through: linear red, green, blue and opacity. */
const PLASTER = [0.86, 0.83, 0.76, 1] as const;
const SILICONE = [0.45, 0.6, 0.75, 0.35] as const;

export interface PlanBodies {
  readonly jacket: { readonly mesh: TriangleMesh };
  readonly parting: {
    readonly sections: readonly { readonly number: number; readonly skin: TriangleMesh }[];
  };
}

function inItsPigment(number: number, mesh: TriangleMesh): NamedPart {
  const { css } = SECTION_PIGMENTS[(number - 1) % SECTION_PIGMENTS.length];
  return { name: `section-${number}`, mesh, colour: [...linearRgb(css), 1] };
}

/** The sections as solids, each in its pigment. */
export function sectionsGlb(
  sections: readonly { readonly number: number; readonly mesh: TriangleMesh }[],
): Promise<Uint8Array> {
  return writeGlb(sections.map(({ number, mesh }) => inItsPigment(number, mesh)));
}

/** @param piece goes with it; left out where only what is built is wanted */
export function planGlb(
  { jacket, parting: { sections } }: PlanBodies,
  piece: TriangleMesh | null = null,
): Promise<Uint8Array> {
  const skins = sections.map(({ number, skin }) => inItsPigment(number, skin));
  return writeGlb([
    ...(piece ? [{ name: "piece", mesh: piece, colour: PLASTER }] : []),
    { name: "jacket", mesh: jacket.mesh, colour: SILICONE },
    ...skins,
  ]);
}
