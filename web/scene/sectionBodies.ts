/** The sections on the stage: each in its pigment with its number, its fill painted and hatched on it, and movable. */
import * as THREE from "three";
import { SECTION_PIGMENTS } from "../../core/display/palette.ts";
import type { TriangleMesh } from "../../core/mesh/mesh.ts";
import type { Direction } from "../../core/space/directions.ts";
import { geometryOf, paint, stencilPlace } from "./geometry.ts";
import { fillColour, hatch, hatched, plaster, sectionSkin } from "./materials.ts";
import { stencil } from "./stencil.ts";

export interface ShownSection {
  readonly number: number;
  readonly skin: TriangleMesh;
  readonly pull: Direction;
  /** Thickness of its fill at every vertex, mm, to be painted on it; null where it is not shown. */
  readonly fillMm: Float32Array | null;
  /** What the fill at every vertex is made of, by its place among `FILL_KINDS`; null where it is not shown. */
  readonly fillKinds: Uint32Array | null;
  /** The skin that its number is placed by, where another body is shown, and how far off that it stands, mm. */
  readonly numbered?: { readonly on: TriangleMesh; readonly offMm: number };
  /** Its flanges, where they are shown. */
  readonly flanges?: readonly TriangleMesh[];
  /** Its ribs and poles, where they are shown. */
  readonly ribs?: readonly TriangleMesh[];
}

/** A section slides out by no more than so many radii of the piece. */
const SLIDE_RADII = 1.6;
/** A section's number is as high as this share of the piece's radius. */
const NUMBER_SHARE = 0.3;

/** A section that can be slid along its pull and raised with the piece. */
export class SectionBody {
  readonly group = new THREE.Group();
  readonly number: number;
  private readonly pull: THREE.Vector3;
  private raisedMm = 0;

  constructor(section: ShownSection, thickestFillMm: number, radiusMm: number) {
    const { number, skin, pull, fillMm, fillKinds } = section;
    this.number = number;
    this.pull = new THREE.Vector3(...pull);
    const geometry = geometryOf(skin);
    if (fillMm) paint(geometry, fillColours(number, fillMm, thickestFillMm));
    if (fillMm && fillKinds) hatch(geometry, fillMm, fillKinds);
    const { at, facing } = stencilPlace(section.numbered?.on ?? skin);
    at.addScaledVector(facing, section.numbered?.offMm ?? 0);
    this.group.add(
      new THREE.Mesh(geometry, fillMm ? hatched() : sectionSkin(number)),
      stencil(number, at, facing, radiusMm * NUMBER_SHARE),
      ...(section.flanges ?? []).map((flange) => new THREE.Mesh(geometryOf(flange), sectionSkin(number))),
      ...(section.ribs ?? []).map((rib) => new THREE.Mesh(geometryOf(rib), plaster())),
    );
  }

  putBack(): void {
    this.raisedMm = 0;
    this.group.position.set(0, 0, 0);
  }

  raise(byMm: number): void {
    this.group.position.z += byMm - this.raisedMm;
    this.raisedMm = byMm;
  }

  /** @param share of the way out, 0..1 */
  slide(share: number, radiusMm: number): void {
    this.group.position.copy(this.pull).multiplyScalar(share * radiusMm * SLIDE_RADII);
    this.group.position.z += this.raisedMm;
  }
}

export function sectionBodies(sections: readonly ShownSection[], radiusMm: number): SectionBody[] {
  const thickestMm = Math.max(1, ...sections.map(({ fillMm }) => greatest(fillMm ?? [])));
  return sections.map((section) => new SectionBody(section, thickestMm, radiusMm));
}

function greatest(values: ArrayLike<number>): number {
  let most = 0;
  for (let k = 0; k < values.length; k++) most = Math.max(most, values[k]);
  return most;
}

/** A section in its pigment, its fill by thickness. */
function fillColours(number: number, fillMm: Float32Array, thickestMm: number): (vertex: number) => THREE.Color {
  const { css } = SECTION_PIGMENTS[(number - 1) % SECTION_PIGMENTS.length];
  const bare = new THREE.Color(css).lerp(new THREE.Color("#ffffff"), 0.3);
  return (v) => (fillMm[v] > 0 ? fillColour(fillMm[v] / thickestMm) : bare);
}
