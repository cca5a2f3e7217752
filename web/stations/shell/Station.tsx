/** The shell's flanges and what holds them together: decided here, seen on the drawing board and the stage. */
import { useEffect, useMemo, useState } from "react";
import type { Stand } from "../../../core/casting/stand.ts";
import { flangeBody, wallFace } from "../../../core/flange/bodies.ts";
import { boltOffMm, leastWidthMm } from "../../../core/flange/fastenings.ts";
import { FLANGE_WIDTHS_MM, type FlangeKeyKind, type FlangeSettings, KEY_KINDS } from "../../../core/flange/settings.ts";
import { PUSH_HOLE_MM, type PushHole } from "../../../core/keys/pushHoles.ts";
import type { TriangleMesh } from "../../../core/mesh/mesh.ts";
import { type BuiltWall, shellTerms, wallTotals } from "../../../core/plan/builtWalls.ts";
import { ribBody } from "../../../core/ribs/body.ts";
import type { Rib } from "../../../core/ribs/ribs.ts";
import { useShow } from "../../lib/show.ts";
import { madeFrom, solidsFor, useSolids } from "../../planning/solids.ts";
import type { ShownFastening } from "../../scene/fastenings.ts";
import type { Xyz } from "../../scene/pointer.ts";
import { useShown } from "../../scene/useShown.ts";
import { useStage } from "../../scene/useStage.tsx";
import { Figure } from "../../ui/Figure.tsx";
import { Choice, More, Part } from "../../ui/fields.tsx";
import { LengthField } from "../../ui/LengthField.tsx";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { CanBeBuilt } from "./parts/CanBeBuilt.tsx";
import { CastingPush } from "./parts/CastingPush.tsx";
import { JacketKeys } from "./parts/JacketKeys.tsx";
import { Profiles } from "./parts/Profiles.tsx";
import { Ribs } from "./parts/Ribs.tsx";
import { SolidSections } from "./parts/SolidSections.tsx";
import { Standing } from "./parts/Standing.tsx";
import { WallCard } from "./parts/WallCard.tsx";
import { usePicked } from "./picked.ts";
import { type ShownKeys, useJacketKeys } from "./useJacketKeys.ts";
import { type ShownProfile, useProfile } from "./useProfile.ts";
import { usePushHoles } from "./usePushHoles.ts";
import { useStand } from "./useStand.ts";
import { useFlangeEdits, useWalls } from "./useWalls.ts";

export function ShellStation({ piece, document, planning }: StationProps) {
  const show = useShow();
  const { bundle } = planning;
  const walls = useWalls({ document, planning });
  const keys = useJacketKeys({ document, planning });
  const profile = useProfile({ document, planning });
  const stand = useStand(walls, { document, planning });
  const holes = usePushHoles({ document, planning });
  const [apart, setApart] = useState(0);
  useShellOnStage({ walls, keys, stand, holes, apart }, document, planning);
  useProfileOnStage(profile, planning);
  const { flanges } = document.shell;
  const terms = shellTerms(document.shell);
  const { set } = useFlangeEdits();
  const totals = wallTotals(walls);
  const bolts = walls.reduce((sum, { fastenings }) => sum + fastenings.bolts.length, 0);
  const bolted = (change: Partial<FlangeSettings["bolts"]>) =>
    set((held) => ({ ...held, bolts: { ...held.bolts, ...change } }));
  const keyed = (change: Partial<FlangeSettings["keys"]>) =>
    set((held) => ({ ...held, keys: { ...held.keys, ...change } }));
  const neededMm = leastWidthMm(flanges, terms);
  const t = messages.flanges;
  return (
    <>
      <CanBeBuilt
        walls={walls}
        box={bundle?.figures.report.piece.boxMm ?? null}
        holes={holes}
        sections={planning.quality === "settled" ? (bundle?.figures.report.sections.length ?? null) : null}
      />
      <WallCard walls={walls} />
      <Part title={t.title}>
        <LengthField
          label={t.width}
          valueMm={flanges.widthMm}
          leastMm={FLANGE_WIDTHS_MM.least}
          mostMm={FLANGE_WIDTHS_MM.most}
          {...(flanges.widthMm < neededMm ? { hint: t.needed(show.length(Math.ceil(neededMm))) } : {})}
          onChange={(widthMm) => set((held) => ({ ...held, widthMm }))}
        />
        <h4 className="mt-2 text-sm font-medium">{t.bolts}</h4>
        <LengthField
          label={t.diameter}
          valueMm={flanges.bolts.diameterMm}
          leastMm={3}
          mostMm={24}
          onChange={(diameterMm) => bolted({ diameterMm })}
        />
        <LengthField
          label={t.pitch}
          valueMm={flanges.bolts.pitchMm}
          leastMm={30}
          mostMm={600}
          stepMm={5}
          onChange={(pitchMm) => bolted({ pitchMm })}
        />
        <Choice
          label={t.off}
          value={flanges.bolts.offMm === null ? "rule" : "hand"}
          options={[
            {
              value: "rule",
              name: `${t.offByRule}: ${show.length(Math.round(boltOffMm({ ...flanges, bolts: { ...flanges.bolts, offMm: null } }, terms)))}`,
            },
            { value: "hand", name: t.offByHand },
          ]}
          onChange={(how) => bolted({ offMm: how === "rule" ? null : Math.round(boltOffMm(flanges, terms)) })}
        />
        {flanges.bolts.offMm !== null && (
          <LengthField
            label={t.off}
            valueMm={flanges.bolts.offMm}
            leastMm={5}
            mostMm={FLANGE_WIDTHS_MM.most}
            onChange={(offMm) => bolted({ offMm })}
          />
        )}
        <Choice<FlangeKeyKind>
          label={t.keys}
          value={flanges.keys.kind}
          options={KEY_KINDS.map((value) => ({ value, name: t.kinds[value] }))}
          onChange={(kind) => keyed({ kind })}
        />
        {flanges.keys.kind !== "none" && (
          <More title={`${t.radius}, ${t.keyPitch.toLowerCase()}`}>
            <LengthField
              label={t.radius}
              valueMm={flanges.keys.radiusMm}
              leastMm={3}
              mostMm={25}
              onChange={(radiusMm) => keyed({ radiusMm })}
            />
            <LengthField
              label={t.keyPitch}
              valueMm={flanges.keys.pitchMm}
              leastMm={50}
              mostMm={1000}
              stepMm={10}
              onChange={(pitchMm) => keyed({ pitchMm })}
            />
          </More>
        )}
        <p className="quiet mt-1 text-xs">{t.typical}</p>
      </Part>
      {bundle && <CastingPush document={document} figures={bundle.figures} walls={walls} />}
      {bundle && stand && <Standing stand={stand} box={bundle.figures.report.piece.boxMm} />}
      {bundle && (
        <JacketKeys
          document={document}
          keys={keys}
          ways={bundle.figures.report.ways}
          box={bundle.figures.report.piece.boxMm}
          pieceName={piece.name}
        />
      )}
      {bundle && (
        <Ribs document={document} spans={bundle.figures.report.spans} box={bundle.figures.report.piece.boxMm} />
      )}
      {bundle && <Profiles profile={profile} />}
      {walls.length > 0 && (
        <Part title={messages.apart.title}>
          <input
            type="range"
            className="range range-sm w-full"
            aria-label={messages.apart.title}
            min={0}
            max={1}
            step={0.02}
            value={apart}
            onChange={(event) => setApart(Number(event.target.value))}
          />
        </Part>
      )}
      <SolidSections planning={planning} document={document} pieceName={piece.name} />
      {walls.length > 0 && (
        <Part title={messages.totals.title}>
          <Figure label={messages.totals.sheet}>{show.area(totals.sheetMm2)}</Figure>
          <Figure label={messages.totals.clay}>{show.volume(totals.clayMm3)}</Figure>
          <Figure label={messages.totals.shims}>{totals.shims}</Figure>
          <Figure label={messages.totals.bolts}>{bolts}</Figure>
        </Part>
      )}
    </>
  );
}

/** Feet are drawn so thick, mm. */
const FOOT_RADIUS_MM = 30;

/** Sections with their flanges, bolts and keys on the stage; a press on them picks the wall that is nearest. */
interface OnStage {
  readonly walls: readonly BuiltWall[];
  readonly keys: ShownKeys;
  readonly stand: Stand | null;
  readonly holes: readonly PushHole[];
  /** How far the sections are pulled apart, 0..1; what holds them together is put away meanwhile. */
  readonly apart: number;
}

function useShellOnStage(
  { walls, keys, stand, holes, apart }: OnStage,
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
  const isApart = apart > 0;
  const sections = bundle?.skins.length ?? 0;
  // All walls are laid out anew together; a bolt that is moved leaves them, and the bodies made of them.
  const shape = walls[0]?.wall;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the first wall's shape stands for all of them.
  const flanges = useMemo(() => flangesBySection(walls, sections, flangeMm), [shape, sections, flangeMm]);
  const ribs = bundle?.figures.report.spans.ribs;
  const standing = useMemo(
    () => ribsBySection(ribs ?? [], sections, shellMm, flangeMm),
    [ribs, sections, shellMm, flangeMm],
  );
  const made = useSolids((held) => held.made);
  const solids = bundle && solidsFor(made, madeFrom(bundle.walls, document.shell));
  // Once they are worked out, the sections are shown as the bodies they will be.
  const bodies = useMemo(() => solids && { meshes: solids.shown, shellMm }, [solids, shellMm]);
  useShown(bundle, document.seat.onBoard, {
    piece: "hidden",
    sections: true,
    ...(bodies ? { bodies } : { flanges, ribs: standing }),
  });
  useEffect(() => {
    const onJacket = keys.map(
      ({ at, normal }): ShownFastening => ({
        ...{ kind: "key", lengthMm: heightMm, radiusMm, trouble: false },
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
    const held = walls.flatMap((wall) => shownFastenings(wall, flangeMm, boltMm));
    stage?.setFastenings(isApart ? [] : [...held, ...onJacket, ...feet, ...through]);
  }, [stage, walls, keys, stand, holes, isApart, position, flangeMm, shellMm, boltMm, radiusMm, heightMm]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: sections that are drawn anew stand together again.
  useEffect(() => {
    for (let number = 1; number <= sections; number++) stage?.slideSection(number, apart);
  }, [stage, sections, apart, bodies, flanges, standing]);
  useEffect(() => {
    const wall = picked === null ? undefined : walls[picked - 1];
    stage?.setWall(wall ? wallFace(wall.along) : null);
  }, [stage, walls, picked]);
  useEffect(() => {
    stage?.setTouch({ on: "sections", how: "pick" });
    const stop = listen("onPick", (at) => pick(nearestWall(walls, at)));
    return () => {
      stop();
      stage?.setTouch(null);
    };
  }, [stage, listen, walls, pick]);
}

/** The profile's lines on the stage, beside the parting lines. */
function useProfileOnStage(profile: ShownProfile | null, { bundle }: StationProps["planning"]): void {
  const { stage } = useStage();
  const lines = bundle?.lines;
  useEffect(() => {
    if (lines) stage?.setLines([...lines, ...(profile?.inSpace ?? [])]);
  }, [stage, lines, profile]);
}

/** The flanges of every section, in their order. */
function flangesBySection(walls: readonly BuiltWall[], sections: number, flangeMm: number): TriangleMesh[][] {
  const out: TriangleMesh[][] = Array.from({ length: sections }, () => []);
  for (const { along, wall } of walls) {
    wall.sections.forEach((number, side) => {
      out[number - 1]?.push(flangeBody(along, side as 0 | 1, flangeMm));
    });
  }
  return out;
}

/** The ribs of every section, in their order. */
function ribsBySection(ribs: readonly Rib[], sections: number, shellMm: number, flangeMm: number): TriangleMesh[][] {
  return Array.from({ length: sections }, (_, s) =>
    ribs.flatMap((rib) => (rib.section === s + 1 ? (ribBody(rib, shellMm, flangeMm) ?? []) : [])),
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
