/**
 * What a host shows of a plan, in one buffer: the figures as JSON, the thinned meshes and the lines as typed arrays.
 *
 * Layout: magic "RMFB", version (u32), length of the JSON in bytes (u32), the JSON padded to 4 bytes, then the arrays
 * one after the other, each padded to 4 bytes. The JSON's `arrays` lists kind and length of each.
 */
import { thinned } from "../../display/thin.ts";
import type { NearestField } from "../../field/nearest.ts";
import type { Team } from "../../job/team.ts";
import { filledBy } from "../../mesh/lists.ts";
import { sameMesh, type TriangleMesh } from "../../mesh/mesh.ts";
import type { FillWith } from "../../parting/layout/layout.ts";
import type { PartingLine } from "../../parting/lines/cut.ts";
import { FILL_KINDS } from "../../release/fills.ts";
import { fillThickness } from "../../release/fillThickness.ts";
import type { WallGround } from "../../walls/wallGround.ts";
import type { ProvenParting } from "../proof/parting.ts";
import type { PlanResult } from "./planResult.ts";
import { type GeometryReport, geometryReport } from "./report.ts";

const MAGIC = 0x42464d52;
/** Raised whenever the layout of what is in it changes: it says what can be read. */
export const BUNDLE_VERSION = 33;
/** The oldest that can still be read; before 33 there were no walls. */
const OLDEST_VERSION = 32;

/**
 * Raised when plans come out otherwise than before: what an older program left under its keys is worked out afresh, and
 * builds keep theirs, which can still be read.
 */
export const RESULTS_VERSION = 43;

const PIECE_TRIANGLES = 90_000;
const JACKET_TRIANGLES = 40_000;
const SKIN_TRIANGLES = 70_000;

export interface BundleFigures {
  readonly report: GeometryReport;
  readonly stepMm: number;
  /** Is what is said of the piece said of the whole scan? A first glance sees it thinned. */
  readonly wholePiece: boolean;
  readonly locks: readonly {
    readonly section: number;
    readonly at: readonly [number, number, number] | null;
    readonly biteMm: number;
  }[];
}

export interface PlanBundle {
  readonly figures: BundleFigures;
  readonly piece: TriangleMesh;
  readonly jacket: TriangleMesh;
  /** The survey's mesh of the jacket's outside, whole: what lines are laid on by hand. */
  readonly survey: TriangleMesh;
  readonly skins: readonly TriangleMesh[];
  /** Thickness of the fill at every vertex of each skin, mm; empty where a section has none. */
  readonly fills: readonly Float32Array[];
  /** What the fill at every vertex of each skin is made of, by its place among `FILL_KINDS`; where there is any. */
  readonly fillKinds: readonly Uint32Array[];
  readonly lines: readonly PartingLine[];
  /** The lines on the jacket before any fill. */
  readonly drawn: readonly PartingLine[];
  /** Points in the locks of each section, xyz and depth (mm), 4 per point. */
  readonly lockPoints: readonly Float32Array[];
  /** What the parting walls stand on, one for every line; none in a first glance. */
  readonly walls: readonly WallGround[];
}

/** Meshes thinned before: the piece and the jacket stay the same from edit to edit. */
const thinnedBefore = new WeakMap<TriangleMesh, TriangleMesh>();

/** A section's skin as it is shown. */
interface ShownSkin {
  readonly whole: TriangleMesh;
  readonly triangles: number;
  readonly skin: TriangleMesh;
}

/** Of the plan before on the same jacket: most edits leave most sections as they were. */
const shownBefore = new WeakMap<NearestField, readonly ShownSkin[]>();

/** Numbers of triangles that differ by less than this share are shown the same. */
const ALIKE = 0.05;

/** The piece, the jacket and the skins as they are shown; what was thinned before is not thinned again. */
async function shownMeshes({ piece, jacket, parting: { sections, bare } }: PlanResult, team: Team) {
  const total = sections.reduce((sum, { skin }) => sum + skin.triangles.length, 0) || 1;
  const skinsBefore = shownBefore.get(bare) ?? [];
  const skins = sections.map(({ skin: mesh }) => {
    const triangles = Math.round((SKIN_TRIANGLES * mesh.triangles.length) / total);
    const held = skinsBefore.find(
      (other) => Math.abs(other.triangles - triangles) < ALIKE * triangles && sameMesh(other.whole, mesh),
    );
    return { mesh, triangles, held: held?.skin };
  });
  const solids = [
    { mesh: piece.mesh, triangles: PIECE_TRIANGLES },
    { mesh: jacket.mesh, triangles: JACKET_TRIANGLES },
  ].map((solid) => ({ ...solid, held: thinnedBefore.get(solid.mesh) }));
  const fresh = [...solids, ...skins].filter(({ held }) => !held);
  const thin = await thinned(fresh, team);
  const shownOf = (wanted: (typeof fresh)[number]) => wanted.held ?? thin[fresh.indexOf(wanted)];
  for (const solid of solids) thinnedBefore.set(solid.mesh, shownOf(solid));
  const shown = skins.map((skin): ShownSkin => ({ whole: skin.mesh, triangles: skin.triangles, skin: shownOf(skin) }));
  shownBefore.set(bare, shown);
  return { piece: shownOf(solids[0]), jacket: shownOf(solids[1]), skins: shown.map(({ skin }) => skin) };
}

/**
 * Thins a result down to what is shown.
 * @param wholePiece see `BundleFigures`
 */
export async function bundleOf(
  result: PlanResult,
  timings: { readMs: number; planMs: number; totalMs: number },
  team: Team,
  wholePiece = true,
): Promise<PlanBundle> {
  const { sections, bare, lines, drawn, surveyMesh } = result.parting;
  const { stepMm } = result.jacket.request;
  const { piece, jacket, skins } = await shownMeshes(result, team);
  return {
    figures: {
      report: geometryReport(result, timings),
      stepMm,
      wholePiece,
      locks: sections.map((section) => ({ section: section.number, at: section.biteAt, biteMm: section.biteMm })),
    },
    ...{ piece, jacket, skins, lines, drawn },
    survey: surveyMesh,
    fills: sections.map(({ fillThickMm }, s) =>
      fillThickMm > 0 ? fillThickness(skins[s], bare, stepMm) : new Float32Array(0),
    ),
    fillKinds: sections.map(({ fillThickMm, fillWith }, s) =>
      fillThickMm > 0 ? fillKinds(skins[s], result.parting.fillKindAt, fillWith) : new Uint32Array(0),
    ),
    lockPoints: sections.map((section) => section.lockPoints),
    walls: result.walls,
  };
}

/** Of every vertex of a skin, what the fill there is made of, by its place among `FILL_KINDS`. */
function fillKinds(
  { positions: p }: TriangleMesh,
  kindAt: ProvenParting["fillKindAt"],
  fillWith: FillWith,
): Uint32Array {
  return filledBy(new Uint32Array(p.length / 3), (v) => {
    const kind = kindAt(p[3 * v], p[3 * v + 1], p[3 * v + 2]) ?? "silicone";
    return FILL_KINDS.indexOf(kind === "silicone" && fillWith === "clay" ? "clay" : kind);
  });
}

interface LineHeader {
  readonly sections: readonly [number, number];
  readonly closed: boolean;
}

interface Header {
  readonly figures: BundleFigures;
  readonly lines: readonly LineHeader[];
  readonly drawn: readonly LineHeader[];
  readonly walls?: readonly LineHeader[];
  readonly skins: number;
  readonly arrays: readonly { kind: "f" | "u"; length: number }[];
}

const lineHeader = ({ sections, closed }: LineHeader): LineHeader => ({ sections, closed });

export function packBundle(bundle: PlanBundle): Uint8Array {
  const arrays: (Float32Array | Uint32Array)[] = [];
  for (const mesh of [bundle.piece, bundle.jacket, bundle.survey, ...bundle.skins])
    arrays.push(mesh.positions, mesh.triangles);
  for (const line of [...bundle.lines, ...bundle.drawn]) arrays.push(line.points);
  arrays.push(...bundle.fills, ...bundle.fillKinds, ...bundle.lockPoints);
  for (const { foot, out, roomMm, limit, leanDeg, draft, nutMm } of bundle.walls)
    arrays.push(foot, out, roomMm, limit, leanDeg, draft, nutMm);
  const header: Header = {
    figures: bundle.figures,
    lines: bundle.lines.map(lineHeader),
    drawn: bundle.drawn.map(lineHeader),
    walls: bundle.walls.map(lineHeader),
    skins: bundle.skins.length,
    arrays: arrays.map((array) => ({ kind: array instanceof Float32Array ? "f" : "u", length: array.length })),
  };
  const json = utf8(JSON.stringify(header));
  const jsonSpace = padded(json.length);
  const out = new Uint8Array(12 + jsonSpace + arrays.reduce((sum, array) => sum + array.byteLength, 0));
  const view = new DataView(out.buffer);
  view.setUint32(0, MAGIC, true);
  view.setUint32(4, BUNDLE_VERSION, true);
  view.setUint32(8, json.length, true);
  out.set(json, 12);
  let at = 12 + jsonSpace;
  for (const array of arrays) {
    out.set(new Uint8Array(array.buffer, array.byteOffset, array.byteLength), at);
    at += array.byteLength;
  }
  return out;
}

/** @returns the bundle, or null when the bytes are another version's or no bundle */
export function unpackBundle(bytes: Uint8Array): PlanBundle | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 12 || view.getUint32(0, true) !== MAGIC) return null;
  const version = view.getUint32(4, true);
  if (version < OLDEST_VERSION || version > BUNDLE_VERSION) return null;
  const jsonLength = view.getUint32(8, true);
  const header = JSON.parse(fromUtf8(bytes.subarray(12, 12 + jsonLength))) as Header;
  let at = 12 + padded(jsonLength);
  const arrays = header.arrays.map(({ kind, length }) => {
    const slice = bytes.slice(at, at + 4 * length);
    if (slice.length < 4 * length) return null;
    at += 4 * length;
    return kind === "f" ? new Float32Array(slice.buffer) : new Uint32Array(slice.buffer);
  });
  if (arrays.includes(null)) return null;
  let next = 0;
  const floats = () => arrays[next++] as Float32Array;
  const mesh = (): TriangleMesh => ({ positions: floats(), triangles: arrays[next++] as Uint32Array });
  return {
    figures: header.figures,
    piece: mesh(),
    jacket: mesh(),
    survey: mesh(),
    skins: Array.from({ length: header.skins }, mesh),
    lines: header.lines.map((line) => ({ ...line, points: floats() })),
    drawn: header.drawn.map((line) => ({ ...line, points: floats() })),
    fills: Array.from({ length: header.skins }, floats),
    fillKinds: Array.from({ length: header.skins }, () => arrays[next++] as Uint32Array),
    lockPoints: Array.from({ length: header.skins }, floats),
    walls: (header.walls ?? []).map(
      (wall): WallGround => ({
        ...wall,
        foot: floats(),
        out: floats(),
        roomMm: floats(),
        limit: arrays[next++] as Uint32Array,
        leanDeg: floats(),
        draft: floats(),
        nutMm: floats(),
      }),
    ),
  };
}

function padded(length: number): number {
  return Math.ceil(length / 4) * 4;
}

/** Plain UTF-8, so that the core needs no host's encoder. */
function utf8(text: string): Uint8Array {
  const escaped = unescape(encodeURIComponent(text));
  return Uint8Array.from({ length: escaped.length }, (_, k) => escaped.charCodeAt(k));
}

function fromUtf8(bytes: Uint8Array): string {
  let text = "";
  for (let at = 0; at < bytes.length; at += 8192) text += String.fromCharCode(...bytes.subarray(at, at + 8192));
  return decodeURIComponent(escape(text));
}
