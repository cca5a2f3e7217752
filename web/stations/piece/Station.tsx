import { useEffect, useState } from "react";
import type { PlanDocument, UpAxis } from "../../../core/plan/document/document.ts";
import { type LengthUnit, lengthUnits, parseLengthMm } from "../../../core/units/index.ts";
import { usePlan } from "../../document/planStore.ts";
import { useShow } from "../../lib/show.ts";
import { useShown } from "../../scene/useShown.ts";
import { useStage } from "../../scene/useStage.tsx";
import { Figure } from "../../ui/Figure.tsx";
import { Caution, Choice, More, NumberField, Part } from "../../ui/fields.tsx";
import { LengthField } from "../../ui/LengthField.tsx";
import { MassField } from "../../ui/MassField.tsx";
import type { StationProps } from "../station.ts";

const UPS: readonly UpAxis[] = ["z", "y", "x", "-z", "-y", "-x"];
const METHODS = [
  { value: "solid", name: "Solid" },
  { value: "face-coat", name: "Face coat" },
  { value: "slush", name: "Slush" },
  { value: "rotation", name: "Rotation" },
] as const;

export function PieceStation({ document, planning }: StationProps) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const { bundle } = planning;
  useShown(bundle, document.seat.onBoard, { piece: "plaster" });
  const seat = (change: Partial<PlanDocument["seat"]>) =>
    edit((plan) => ({ ...plan, seat: { ...plan.seat, ...change } }));
  const brief = (change: Partial<PlanDocument["brief"]>) =>
    edit((plan) => ({ ...plan, brief: { ...plan.brief, ...change } }));
  const report = bundle?.figures.report.piece;
  return (
    <>
      <Part title="Size">
        {report && (
          <>
            <Figure label="Height">{show.length(report.sizeMm[2])}</Figure>
            <Figure label="Width × depth">
              {show.length(report.sizeMm[0])} × {show.length(report.sizeMm[1])}
            </Figure>
          </>
        )}
        <Choice<LengthUnit>
          label="The scan is in"
          value={document.seat.unit}
          options={lengthUnits.map((unit) => ({ value: unit, name: unit }))}
          onChange={(unit) => seat({ unit, tapeScale: 1 })}
        />
        <TapeCheck document={document} />
      </Part>
      <Part title="On the board">
        <Choice<UpAxis>
          label="Upright axis of the scan"
          value={document.seat.up}
          options={UPS.map((up) => ({ value: up, name: up.toUpperCase().replace("-", "−") }))}
          onChange={(up) => seat({ up })}
        />
        <NumberField
          label="Turn about the upright"
          value={document.seat.turnDeg}
          unit="°"
          least={-180}
          most={180}
          step={5}
          onChange={(turnDeg) => seat({ turnDeg })}
        />
        <label className="flex items-center justify-between py-1">
          <span className="quiet text-sm">Stands on a board</span>
          <input
            type="checkbox"
            className="toggle toggle-sm"
            checked={document.seat.onBoard}
            onChange={(event) => seat({ onBoard: event.target.checked })}
          />
        </label>
      </Part>
      <Part title="Brief">
        <NumberField
          label="Edition"
          unit="casts"
          value={document.brief.edition}
          least={1}
          most={100_000}
          onChange={(edition) => brief({ edition: Math.round(edition) })}
        />
        <TextField
          label="Cast in"
          value={document.brief.castMaterial}
          onChange={(castMaterial) => brief({ castMaterial })}
        />
        <Choice
          label="How it is cast"
          value={document.brief.castMethod}
          options={METHODS}
          onChange={(castMethod) => brief({ castMethod })}
        />
        <TextField
          label="Surface of the piece"
          value={document.brief.surface}
          onChange={(surface) => brief({ surface })}
        />
        <MassField
          label="Lift limit"
          valueG={document.brief.liftLimitKg * 1000}
          leastG={1000}
          mostG={2_000_000}
          onChange={(massG) => brief({ liftLimitKg: massG / 1000 })}
        />
        <LengthField
          label="Largest section"
          hint="that door, bench and hands can take"
          valueMm={document.brief.handlingMm}
          leastMm={100}
          mostMm={20_000}
          stepMm={50}
          onChange={(handlingMm) => brief({ handlingMm })}
        />
        <label className="mt-2 flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={document.brief.immovable}
            onChange={(event) => brief({ immovable: event.target.checked })}
          />
          The piece cannot be moved: nothing leaves from under it
        </label>
      </Part>
      {report && !bundle.figures.wholePiece && (
        <Part title="The scan">
          <p className="quiet text-sm">Being looked over for holes, loose parts and turned faces.</p>
        </Part>
      )}
      {report && bundle.figures.wholePiece && (
        <Part title="The scan">
          {report.repairs.length === 0 && report.openEdges === 0 && (
            <p className="text-sm">Closed and sound; nothing was mended.</p>
          )}
          {report.repairs.length > 0 && (
            <ul className="list-disc pl-5 text-sm">
              {report.repairs.map((repair) => (
                <li key={repair}>{repair}</li>
              ))}
            </ul>
          )}
          {bundle.figures.report.warnings.map((warning) =>
            warning.kind === "scan" ? <Caution key={warning.text}>{warning.text}</Caution> : null,
          )}
          <More title="More about the scan">
            <Figure label="Triangles">{report.triangles.toLocaleString("en-GB")}</Figure>
            <Figure label="Open edges">{report.openEdges}</Figure>
            <Figure label="Edges of more than two triangles">{report.nonManifoldEdges}</Figure>
            <Figure label="Separate parts">{report.parts}</Figure>
            <Figure label="Surface">{show.area(report.areaMm2)}</Figure>
            <Figure label="Volume">{show.volume(report.volumeMm3)}</Figure>
          </More>
        </Part>
      )}
    </>
  );
}

function TextField({ label, value, onChange }: { label: string; value: string; onChange: (value: string) => void }) {
  return (
    <label className="flex items-center justify-between gap-3 py-1">
      <span className="quiet text-sm">{label}</span>
      <input
        className="input input-sm w-44"
        value={value}
        maxLength={60}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}

/** Two picked points and what a tape says between them. */
function TapeCheck({ document }: { document: PlanDocument }) {
  const { stage, listen } = useStage();
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const [picking, setPicking] = useState(false);
  const [points, setPoints] = useState<(readonly [number, number, number])[]>([]);
  const [text, setText] = useState("");
  useEffect(() => {
    stage?.setPicks(points);
    stage?.setTouch(picking ? { on: "piece", how: "pick" } : null);
    if (!picking) return;
    return listen("onPick", (point) => setPoints((held) => (held.length >= 2 ? [point] : [...held, point])));
  }, [stage, listen, points, picking]);
  useEffect(
    () => () => {
      stage?.setPicks([]);
      stage?.setTouch(null);
    },
    [stage],
  );
  const apart = points.length === 2 ? Math.hypot(...points[0].map((value, a) => value - points[1][a])) : null;
  const taped = parseLengthMm(text, show.units === "imperial" ? "imperial" : "metric");
  const apply = () => {
    if (!apart || !taped || taped <= 0) return;
    edit((plan) => ({ ...plan, seat: { ...plan.seat, tapeScale: (plan.seat.tapeScale * taped) / apart } }));
    setPoints([]);
    setText("");
    setPicking(false);
  };
  if (!picking) {
    return (
      <div className="flex items-center justify-between pt-1">
        <span className="quiet text-sm">
          {document.seat.tapeScale === 1
            ? "Not checked with a tape"
            : `Scaled × ${document.seat.tapeScale.toFixed(4)} by tape`}
        </span>
        <button type="button" className="btn btn-sm" onClick={() => setPicking(true)}>
          Tape check
        </button>
      </div>
    );
  }
  return (
    <div className="mt-1 border-l-4 border-accent bg-base-200 px-3 py-2">
      <p className="text-sm">
        {points.length < 2
          ? `Click ${points.length === 0 ? "two points" : "the second point"} on the piece.`
          : `The scan says ${show.length(apart ?? 0)}. What does the tape say?`}
      </p>
      {points.length === 2 && (
        <input
          className="input input-sm mt-1 w-full"
          aria-label="Distance by tape"
          placeholder={show.units === "imperial" ? "e.g. 14 1/2 in" : "e.g. 368 mm"}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && apply()}
        />
      )}
      <div className="mt-2 flex justify-end gap-2">
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          onClick={() => {
            setPicking(false);
            setPoints([]);
          }}
        >
          Leave it
        </button>
        <button type="button" className="btn btn-primary btn-sm" disabled={!apart || !taped} onClick={apply}>
          Scale to the tape
        </button>
      </div>
    </div>
  );
}
