/** The shell on the stage as it will be built: sections, flanges, ribs, bolts, keys, feet and push holes. */
import { useEffect, useMemo } from "react";
import type { Stand } from "../../../core/casting/stand.ts";
import { flangeBody, wallFace } from "../../../core/flange/bodies.ts";
import { PUSH_HOLE_MM, type PushHole } from "../../../core/keys/pushHoles.ts";
import type { TriangleMesh } from "../../../core/mesh/mesh.ts";
import { together } from "../../../core/mesh/together.ts";
import type { BuildStep } from "../../../core/plan/buildSteps.ts";
import { type BuiltWall, shellTerms } from "../../../core/plan/builtWalls.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { ribBodies } from "../../../core/ribs/body.ts";
import type { Rib } from "../../../core/ribs/ribs.ts";
import type { RibSettings } from "../../../core/ribs/settings.ts";
import { type RibShape, ribShape } from "../../../core/ribs/shape.ts";
import { shellThicknesses } from "../../../core/shell/index.ts";
import { layupFor, type ShellLaid } from "../../../core/shell/layup.ts";
import { type Block, blocksUnder } from "../../../core/walls/blocks.ts";
import { madeFrom, solidsFor, useSolids } from "../../planning/solids.ts";
import type { ShownFastening } from "../../scene/fastenings.ts";
import type { Xyz } from "../../scene/pointer.ts";
import { useShown } from "../../scene/useShown.ts";
import { useStage } from "../../scene/useStage.tsx";
import type { StationProps } from "../station.ts";
import { usePicked } from "./picked.ts";
import type { ShownKeys } from "./useJacketKeys.ts";
import type { SectionLugs } from "./useLugs.ts";

/** Feet are drawn so thick, mm. */
const FOOT_RADIUS_MM = 30;
/** A lug's loop, and a block under a wall. */
const LUG_RADIUS_MM = 12;
const BLOCK_RADIUS_MM = 20;

/** Sections with their flanges, bolts and keys on the stage; a press on them picks the wall that is nearest. */
interface OnStage {
  readonly walls: readonly BuiltWall[];
  readonly keys: ShownKeys;
  readonly stand: Stand | null;
  readonly holes: readonly PushHole[];
  readonly lugs: readonly SectionLugs[];
  /** The step of building that is shown; null where all of the shell is. */
  readonly step: BuildStep | null;
  /** How far the sections are pulled apart, 0..1; what holds them together is put away meanwhile. */
  readonly apart: number;
}

export function useShellOnStage(
  { walls, keys, stand, holes, lugs, step, apart }: OnStage,
  document: StationProps["document"],
  { bundle }: StationProps["planning"],
): void {
  const { stage, listen } = useStage();
  const picked = usePicked((held) => held.wall);
  const pick = usePicked((held) => held.pick);
  const { flangeMm, shellMm } = shellTerms(document.shell);
  const { radiusMm, heightMm } = document.shell.jacketKeys;
  const boltMm = document.shell.flanges.bolts.diameterMm;
  const { position } = document.shell.casting;
  const { onBoard } = document.seat;
  const isApart = apart > 0;
  const sections = bundle?.skins.length ?? 0;
  const { system, figures, order, sections: otherwise, ribs: ribSettings } = document.shell;
  const { sections: known } = document.identity;
  // Of what they follow from alone: a bolt that is moved leaves flanges and ribs.
  const laid = useMemo(
    () => laidSections({ system, figures, order, sections: otherwise }, ribSettings, known, sections),
    [system, figures, order, otherwise, ribSettings, known, sections],
  );
  // All walls are laid out again together; a bolt that is moved leaves them, and the bodies made of them.
  const shape = walls[0]?.wall;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the first wall's shape stands for all of them.
  const flanges = useMemo(() => flangesBySection(walls, laid), [shape, laid]);
  const ribs = bundle?.figures.report.spans.ribs;
  const standing = useMemo(() => ribsBySection(ribs ?? [], laid), [ribs, laid]);
  const made = useSolids((held) => held.made);
  const solids = bundle && solidsFor(made, madeFrom(bundle.walls, document.shell));
  // Once they are worked out, the sections are shown as the bodies they will be.
  const bodies = useMemo(() => solids && { meshes: solids.shown, shellMm }, [solids, shellMm]);
  useShown(bundle, document.seat.onBoard, {
    piece: "hidden",
    sections: true,
    ...(bodies ? { bodies } : { flanges, ribs: standing }),
    ...(step ? { jacket: true, upTo: step.standing } : {}),
  });
  useEffect(() => {
    const onJacket = keys.map(
      ({ at, normal, troubles }): ShownFastening => ({
        ...{ kind: "key", lengthMm: heightMm, radiusMm, trouble: troubles.length > 0 },
        at: [...at] as Xyz,
        normal: [...normal],
      }),
    );
    const up = position === "as-it-stands" ? 1 : -1;
    const feet = (stand?.feet ?? []).map(
      ({ at: [x, y, z], lengthMm }): ShownFastening => ({
        ...{ kind: "foot", lengthMm, radiusMm: FOOT_RADIUS_MM, trouble: false },
        at: [x, y, z - (up * lengthMm) / 2],
        normal: [0, 0, up],
      }),
    );
    const through = holes.map(
      ({ at, normal }): ShownFastening => ({
        ...{ kind: "foot", lengthMm: 2 * shellMm, radiusMm: PUSH_HOLE_MM / 2, trouble: false },
        at: [...at],
        normal: [...normal],
      }),
    );
    const loops = lugs.flatMap(({ lugs: own }) =>
      (own?.at ?? []).map(
        (at): ShownFastening => ({
          ...{ kind: "foot", lengthMm: 4 * shellMm, radiusMm: LUG_RADIUS_MM, trouble: false },
          at: [...at] as Xyz,
          normal: [0, 0, 1],
        }),
      ),
    );
    if (step) {
      stage?.setFastenings(duringStep(step, walls, onJacket, keys, flangeMm, boltMm));
      return;
    }
    const under = picked === null ? [] : blocksOn(walls[picked - 1], onBoard);
    const held = walls.flatMap((wall) => shownFastenings(wall, flangeMm, boltMm));
    stage?.setFastenings(isApart ? [] : [...held, ...onJacket, ...feet, ...through, ...loops, ...under]);
  }, [
    stage,
    walls,
    keys,
    stand,
    holes,
    lugs,
    picked,
    onBoard,
    isApart,
    step,
    position,
    flangeMm,
    shellMm,
    boltMm,
    radiusMm,
    heightMm,
  ]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: sections that are drawn again stand together again.
  useEffect(() => {
    for (let number = 1; number <= sections; number++) stage?.slideSection(number, apart);
  }, [stage, sections, apart, bodies, flanges, standing]);
  useEffect(() => {
    const up = step ? (step.kind === "walls" ? step.walls : []) : picked === null ? [] : [picked - 1];
    const faces = up.flatMap((n) => (walls[n] ? [wallFace(walls[n].along)] : []));
    stage?.setWall(faces.length > 0 ? together(...faces) : null);
  }, [stage, walls, picked, step]);
  useEffect(() => {
    stage?.setTouch({ on: "sections", how: "pick" });
    const stop = listen("onPick", (at) => {
      // While a key is set, a press is where it goes.
      if (usePicked.getState().keyHand !== "add") pick(nearestWall(walls, at));
    });
    return () => {
      stop();
      stage?.setTouch(null);
    };
  }, [stage, listen, walls, pick]);
}

/** What stands on the jacket while a section is built: its keys, those of its walls, and the blocks under them. */
function duringStep(
  { kind, section, walls: own, blocks }: BuildStep,
  walls: readonly BuiltWall[],
  onJacket: readonly ShownFastening[],
  keys: ShownKeys,
  flangeMm: number,
  boltMm: number,
): ShownFastening[] {
  if (kind === "laid") return [];
  const pressed = own.flatMap((n) => (walls[n] ? shownFastenings(walls[n], flangeMm, boltMm) : []));
  return [
    ...onJacket.filter((_, k) => keys[k].section >= section),
    ...pressed.filter(({ kind: what }) => what === "key"),
    ...blocks.map(blockMark),
  ];
}

function blockMark({ at: [x, y, z], heightMm }: Block): ShownFastening {
  return {
    ...{ kind: "foot", lengthMm: heightMm, radiusMm: BLOCK_RADIUS_MM, trouble: false, normal: [0, 0, 1] },
    at: [x, y, z - heightMm / 2],
  };
}

/** Blocks that a wall stands on while it is built. */
function blocksOn(built: BuiltWall | undefined, onBoard: boolean): ShownFastening[] {
  if (!built || !onBoard) return [];
  return blocksUnder(built.wall, 0).map(blockMark);
}

/** What stands out of a section goes by how it is laid up. */
interface LaidSection {
  readonly flangeMm: number;
  readonly rib: RibShape;
}

/** In the order of the sections. */
function laidSections(
  shell: ShellLaid,
  ribs: RibSettings,
  known: PlanDocument["identity"]["sections"],
  sections: number,
): LaidSection[] {
  return Array.from({ length: sections }, (_, s) => {
    const layup = layupFor(shell, known[s]?.id);
    return { flangeMm: shellThicknesses(layup).flangeMm, rib: ribShape(ribs, layup) };
  });
}

/** The flanges of every section, in their order. */
function flangesBySection(walls: readonly BuiltWall[], laid: readonly LaidSection[]): TriangleMesh[][] {
  const out: TriangleMesh[][] = laid.map(() => []);
  for (const { along, wall } of walls) {
    wall.sections.forEach((number, side) => {
      const own = laid[number - 1];
      if (own) out[number - 1].push(flangeBody(along, side as 0 | 1, own.flangeMm));
    });
  }
  return out;
}

/** The ribs of every section, in their order: on the face that is shown of it, which is the one on the jacket. */
function ribsBySection(ribs: readonly Rib[], laid: readonly LaidSection[]): TriangleMesh[][] {
  return laid.map(({ flangeMm, rib: shape }, s) =>
    ribs.flatMap((rib) => (rib.section === s + 1 ? ribBodies(rib, 0, flangeMm, shape) : [])),
  );
}

function shownFastenings({ along, fastenings }: BuiltWall, flangeMm: number, boltMm: number): ShownFastening[] {
  const of = (
    kind: ShownFastening["kind"],
    place: { alongMm: number; offMm: number },
    radiusMm: number,
    trouble: boolean,
  ) => ({
    kind,
    at: along.place(place),
    normal: along.normal(place.alongMm),
    radiusMm,
    lengthMm: 2.6 * flangeMm,
    trouble,
  });
  return [
    ...fastenings.bolts.map((bolt) =>
      of("bolt", bolt, boltMm / 2, bolt.troubles.length > 0 || bolt.access.kind === "none"),
    ),
    ...fastenings.dimples.map((dimple) => of("key", dimple, dimple.radiusMm, false)),
  ];
}

/** Number of the wall that a place is nearest to, no farther than a wall is wide; null where none is. */
function nearestWall(walls: readonly BuiltWall[], at: Xyz): number | null {
  let best: number | null = null;
  let least = 1.3 * Math.max(...walls.map(({ wall }) => wall.wantedMm), 0);
  walls.forEach(({ wall: { foot, head } }, n) => {
    for (let k = 0; k < foot.length; k += 3) {
      const away = Math.hypot(...[0, 1, 2].map((a) => at[a] - (foot[k + a] + head[k + a]) / 2));
      if (away >= least) continue;
      least = away;
      best = n + 1;
    }
  });
  return best;
}
