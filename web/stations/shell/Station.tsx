/** The shell's flanges and what holds them together: decided here, seen on the drawing board and the stage. */
import { useEffect, useMemo, useState } from "react";
import type { Strap } from "../../../core/casting/straps.ts";
import { type Footprint, OVER_BOARD_MM } from "../../../core/foot/footprint.ts";
import { buildSteps } from "../../../core/plan/buildSteps.ts";
import { wallTotals } from "../../../core/plan/builtWalls.ts";
import { useShow } from "../../lib/show.ts";
import { useStage } from "../../scene/useStage.tsx";
import { Figure } from "../../ui/Figure.tsx";
import { Part } from "../../ui/fields.tsx";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { BuildWalk } from "./parts/BuildWalk.tsx";
import { CanBeBuilt } from "./parts/CanBeBuilt.tsx";
import { CastingPush } from "./parts/CastingPush.tsx";
import { Flanges } from "./parts/Flanges.tsx";
import { Foot } from "./parts/Foot.tsx";
import { JacketKeys } from "./parts/JacketKeys.tsx";
import { LugPlaces } from "./parts/LugPlaces.tsx";
import { Profiles } from "./parts/Profiles.tsx";
import { Ribs } from "./parts/Ribs.tsx";
import { SolidSections } from "./parts/SolidSections.tsx";
import { Standing } from "./parts/Standing.tsx";
import { Straps } from "./parts/Straps.tsx";
import { WallCard } from "./parts/WallCard.tsx";
import { usePicked } from "./picked.ts";
import { useBoltHands } from "./useBoltHands.ts";
import { useFootprint } from "./useFootprint.ts";
import { useJacketKeys, useKeyHands } from "./useJacketKeys.ts";
import { useLugs } from "./useLugs.ts";
import { type ShownProfile, useProfile, useProfileHand } from "./useProfile.ts";
import { usePushHoles } from "./usePushHoles.ts";
import { useShellOnStage } from "./useShellOnStage.ts";
import { useStand } from "./useStand.ts";
import { useStraps } from "./useStraps.ts";
import { useWalls } from "./useWalls.ts";

export function ShellStation({ piece, document, planning }: StationProps) {
  const show = useShow();
  const { bundle } = planning;
  const walls = useWalls({ document, planning });
  const keys = useJacketKeys({ document, planning });
  const hands = useKeyHands(keys, { planning });
  const footprint = useFootprint(walls, { document, planning });
  const straps = useStraps(walls, { document, planning });
  const profile = useProfile({ document, planning });
  useBoltHands(walls, profile !== null);
  useProfileHand(profile);
  const stand = useStand(walls, footprint, { document, planning });
  const holes = usePushHoles({ document, planning });
  const lugs = useLugs({ document, planning });
  const [apart, setApart] = useState(0);
  const at = usePicked((held) => held.step);
  const sections = bundle?.figures.report.sections.length ?? 0;
  const steps = useMemo(
    () => buildSteps(sections, walls, document.seat.onBoard ? 0 : null),
    [sections, walls, document.seat.onBoard],
  );
  const step = at === null ? null : (steps[at] ?? null);
  useShellOnStage({ walls, keys, stand, holes, lugs, step, apart }, document, planning);
  useLinesOnStage(profile, straps, footprint, planning);
  const totals = wallTotals(walls);
  const bolts = walls.reduce((sum, { fastenings }) => sum + fastenings.bolts.length, 0);
  return (
    <>
      <CanBeBuilt
        walls={walls}
        box={bundle?.figures.report.piece.boxMm ?? null}
        holes={holes}
        sections={planning.quality === "settled" ? (bundle?.figures.report.sections.length ?? null) : null}
      />
      <WallCard walls={walls} onBoard={document.seat.onBoard} hold={document.shell.flanges.bolts.hold} />
      {walls.length > 0 && bundle && (
        <BuildWalk steps={steps} walls={walls} document={document} ids={bundle.figures.ids.sections} />
      )}
      {planning.quality === "settled" && bundle?.skins.length === 1 ? null : <Flanges document={document} />}
      {bundle && <CastingPush document={document} figures={bundle.figures} walls={walls} straps={straps} />}
      <Straps document={document} straps={straps} />
      {footprint && <Foot document={document} footprint={footprint} />}
      {bundle && stand && <Standing stand={stand} box={bundle.figures.report.piece.boxMm} />}
      {bundle && (
        <JacketKeys
          document={document}
          keys={keys}
          hands={hands}
          ways={bundle.figures.report.ways}
          box={bundle.figures.report.piece.boxMm}
          pieceName={piece.name}
        />
      )}
      {bundle && (
        <Ribs
          document={document}
          spans={bundle.figures.report.spans}
          ids={bundle.figures.ids.sections}
          box={bundle.figures.report.piece.boxMm}
        />
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
      <SolidSections planning={planning} document={document} pieceName={piece.name} walls={walls} />
      {bundle && <LugPlaces lugs={lugs} document={document} plan={bundle} />}
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

/** The profile's lines, the straps and the foot's edge on the stage, beside the parting lines. */
function useLinesOnStage(
  profile: ShownProfile | null,
  straps: readonly Strap[],
  footprint: Footprint | null,
  { bundle }: StationProps["planning"],
): void {
  const { stage } = useStage();
  const lines = bundle?.lines;
  useEffect(() => {
    const round = straps.map(({ ring }) => ({ points: ring, closed: true }));
    const foot = (footprint?.foot ?? []).map((ring) => ({
      points: Float32Array.from(ring.flatMap(([x, y]) => [x, y, OVER_BOARD_MM])),
      closed: true,
    }));
    if (lines) stage?.setLines([...lines, ...(profile?.inSpace ?? []), ...round, ...foot]);
  }, [stage, lines, profile, straps, footprint]);
}
