import { useEffect, useMemo, useRef, useState } from "react";
import { jacketThicknessMm } from "../../../../core/jacket/coat.ts";
import type { TriangleMesh } from "../../../../core/mesh/mesh.ts";
import { vertexNormals } from "../../../../core/mesh/normals.ts";
import { refined } from "../../../../core/mesh/refine.ts";
import type { PlanDocument } from "../../../../core/plan/document/document.ts";
import {
  type Dabs,
  withDab,
  withinZone,
  withoutDabs,
  ZONE_KINDS,
  type ZoneKind,
} from "../../../../core/survey/zones.ts";
import { usePlan } from "../../../document/planStore.ts";
import { useShow } from "../../../lib/show.ts";
import type { Brush } from "../../../scene/pointer.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { Choice, Part } from "../../../ui/fields.tsx";
import { LengthField } from "../../../ui/LengthField.tsx";
import { messages } from "../messages.ts";

const ZONES: Readonly<Record<ZoneKind, { readonly name: string; readonly colour: string; readonly says: string }>> = {
  keepClear: {
    name: messages.zonePainter.keepClear,
    colour: "#c4562f",
    says: messages.zonePainter.keepClearHelp,
  },
  fragile: {
    name: messages.zonePainter.fragile,
    colour: "#d9a441",
    says: messages.zonePainter.fragileHelp,
  },
  thicker: {
    name: messages.zonePainter.thicker,
    colour: "#5f8fb4",
    says: messages.zonePainter.thickerHelp,
  },
};
const BARE = "#d8cfbd";
const PALETTE = [BARE, ...ZONE_KINDS.map((kind) => ZONES[kind].colour)];

/** Edges no longer than this show a brush's border well enough. */
const PAINT_EDGE_MM = 12;

type BrushHand = "paint" | "wipe";

/** What a brush does goes with it to the stage and comes back with its dabs. */
const nameOf = (kind: ZoneKind, hand: BrushHand) => `${hand} ${kind}`;

function chosenBy({ name }: Brush): [paints: boolean, kind: ZoneKind] {
  const [hand, kind] = name.split(" ");
  return [hand === "paint", kind as ZoneKind];
}

/** Paints zones on the piece with a round brush. */
export function ZonePainter({ document, mesh: thin }: { document: PlanDocument; mesh: TriangleMesh | null }) {
  const { stage, listen } = useStage();
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const [kind, setKind] = useState<ZoneKind>("keepClear");
  const [brushMm, setBrushMm] = useState(60);
  const [hand, setHand] = useState<BrushHand>("paint");
  /** The zone being painted, until the stroke ends. */
  const stroke = useRef<Dabs | null>(null);
  const [shown, setShown] = useState<{ readonly kind: ZoneKind; readonly dabs: Dabs } | null>(null);
  // Flat stretches are shown in long triangles: too few vertices to paint on.
  const mesh = useMemo(() => thin && refined(thin, PAINT_EDGE_MM), [thin]);
  const { onBoard } = document.seat;
  useEffect(() => {
    if (mesh) stage?.setPiece(mesh, onBoard);
  }, [stage, mesh, onBoard]);
  const normals = useMemo(() => mesh && vertexNormals(mesh).normals, [mesh]);
  const zones = useMemo(
    () => (shown ? { ...document.zones, [shown.kind]: shown.dabs } : document.zones),
    [document.zones, shown],
  );
  useEffect(() => {
    if (!stage || !mesh || !normals) return;
    const classes = new Uint8Array(mesh.positions.length / 3);
    ZONE_KINDS.forEach((own, k) => {
      const within = withinZone(zones[own], mesh.positions, normals, 0);
      for (let v = 0; v < classes.length; v++) if (within[v]) classes[v] = k + 1;
    });
    stage.setPieceLook({ kind: "classes", classes, palette: PALETTE });
  }, [stage, mesh, normals, zones]);
  useEffect(() => {
    stage?.setTouch({ on: "piece", how: "paint", brush: { widthMm: brushMm, name: nameOf(kind, hand) } });
  }, [stage, kind, brushMm, hand]);
  useEffect(() => {
    return listen("onPaint", (dabs, phase, brush) => {
      const [paints, own] = chosenBy(brush);
      const before = usePlan.getState().document?.zones[own] ?? [];
      const begun = phase === "begin" ? before : stroke.current;
      // The end of a stroke that began before this was here.
      if (!begun) return;
      const radius = brush.widthMm / 2;
      const painted = dabs.reduce<Dabs>(
        (held, { point, normal }) => (paints ? withDab(held, point, normal, radius) : withoutDabs(held, point, radius)),
        begun,
      );
      const ended = phase === "end";
      stroke.current = ended ? null : painted;
      setShown(ended ? null : { kind: own, dabs: painted });
      // What changed nothing is nothing to undo.
      if (ended && painted.join() !== before.join()) {
        edit((plan) => ({ ...plan, zones: { ...plan.zones, [own]: painted } }));
      }
    });
  }, [listen, edit]);
  useEffect(() => () => stage?.setTouch(null), [stage]);

  return (
    <Part title={messages.zonePainter.zones}>
      <Choice<ZoneKind>
        label={messages.zonePainter.whatItIs}
        value={kind}
        options={ZONE_KINDS.map((value) => ({ value, name: ZONES[value].name }))}
        onChange={setKind}
      />
      <p className="quiet py-1 text-sm">{ZONES[kind].says}</p>
      <Choice
        label={messages.zonePainter.theBrush}
        value={hand}
        options={[
          { value: "paint", name: messages.zonePainter.paint },
          { value: "wipe", name: messages.zonePainter.wipeAway },
        ]}
        onChange={setHand}
      />
      <LengthField
        label={messages.zonePainter.brush}
        after="across"
        valueMm={brushMm}
        leastMm={5}
        mostMm={500}
        stepMm={5}
        onChange={setBrushMm}
      />
      {kind === "thicker" && (
        <LengthField
          label={messages.zonePainter.thickerBy}
          hint={messages.zonePainter.overOfCoats(show.length(jacketThicknessMm(document.jacket.coats)))}
          valueMm={document.jacket.thickerMm}
          leastMm={0}
          mostMm={30}
          stepMm={0.5}
          onChange={(thickerMm) => edit((plan) => ({ ...plan, jacket: { ...plan.jacket, thickerMm } }))}
        />
      )}
      <ul className="mt-2 text-sm" data-testid="zones">
        {ZONE_KINDS.map((own) => (
          <li key={own} className="flex items-center gap-3 py-1">
            <span className="h-5 w-8 border border-base-content/40" style={{ background: ZONES[own].colour }} />
            <span className="grow">{ZONES[own].name}</span>
            {zones[own].length === 0 ? (
              <span className="quiet">{messages.zonePainter.none}</span>
            ) : (
              <button
                type="button"
                className="btn btn-xs"
                onClick={() => edit((plan) => ({ ...plan, zones: { ...plan.zones, [own]: [] } }))}
              >
                {messages.zonePainter.clearIt}
              </button>
            )}
          </li>
        ))}
      </ul>
    </Part>
  );
}
