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
import { messages } from "./messages.ts";

const UPS: readonly UpAxis[] = ["z", "y", "x", "-z", "-y", "-x"];
const METHODS = [
  { value: "solid", name: messages.sheet.solid },
  { value: "face-coat", name: messages.sheet.faceCoat },
  { value: "slush", name: messages.sheet.slush },
  { value: "rotation", name: messages.sheet.rotation },
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
      <Part title={messages.sheet.size}>
        {report && (
          <>
            <Figure label={messages.sheet.height}>{show.length(report.sizeMm[2])}</Figure>
            <Figure label={messages.sheet.widthDepth}>
              {show.length(report.sizeMm[0])} × {show.length(report.sizeMm[1])}
            </Figure>
          </>
        )}
        <Choice<LengthUnit>
          label={messages.sheet.theScanIsIn}
          value={document.seat.unit}
          options={lengthUnits.map((unit) => ({ value: unit, name: unit }))}
          onChange={(unit) => seat({ unit, tapeScale: 1 })}
        />
        <TapeCheck document={document} />
      </Part>
      <Part title={messages.sheet.onTheBoard}>
        <Choice<UpAxis>
          label={messages.sheet.uprightAxisOfTheScan}
          value={document.seat.up}
          options={UPS.map((up) => ({ value: up, name: up.toUpperCase().replace("-", "−") }))}
          onChange={(up) => seat({ up })}
        />
        <NumberField
          label={messages.sheet.turnAboutTheUpright}
          value={document.seat.turnDeg}
          unit="°"
          least={-180}
          most={180}
          step={5}
          onChange={(turnDeg) => seat({ turnDeg })}
        />
        <label className="flex items-center justify-between py-1">
          <span className="quiet text-sm">{messages.sheet.standsOnABoard}</span>
          <input
            type="checkbox"
            className="toggle toggle-sm"
            checked={document.seat.onBoard}
            onChange={(event) => seat({ onBoard: event.target.checked })}
          />
        </label>
      </Part>
      <Part title={messages.sheet.brief}>
        <NumberField
          label={messages.sheet.edition}
          unit="casts"
          value={document.brief.edition}
          least={1}
          most={100_000}
          onChange={(edition) => brief({ edition: Math.round(edition) })}
        />
        <TextField
          label={messages.sheet.castIn}
          value={document.brief.castMaterial}
          onChange={(castMaterial) => brief({ castMaterial })}
        />
        <Choice
          label={messages.sheet.howItIsCast}
          value={document.brief.castMethod}
          options={METHODS}
          onChange={(castMethod) => brief({ castMethod })}
        />
        <TextField
          label={messages.sheet.surfaceOfThePiece}
          value={document.brief.surface}
          onChange={(surface) => brief({ surface })}
        />
        <MassField
          label={messages.sheet.liftLimit}
          valueG={document.brief.liftLimitKg * 1000}
          leastG={1000}
          mostG={2_000_000}
          onChange={(massG) => brief({ liftLimitKg: massG / 1000 })}
        />
        <LengthField
          label={messages.sheet.largestSection}
          hint={messages.sheet.largestHint}
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
          {messages.sheet.cannotBeMoved}
        </label>
      </Part>
      {report && !bundle.figures.wholePiece && (
        <Part title={messages.sheet.theScan}>
          <p className="quiet text-sm">{messages.sheet.lookingItOver}</p>
        </Part>
      )}
      {report && bundle.figures.wholePiece && (
        <Part title={messages.sheet.theScan}>
          {report.repairs.length === 0 && report.openEdges === 0 && <p className="text-sm">{messages.sheet.sound}</p>}
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
          <More title={messages.sheet.moreAboutTheScan}>
            <Figure label={messages.sheet.triangles}>{report.triangles.toLocaleString("en-GB")}</Figure>
            <Figure label={messages.sheet.openEdges}>{report.openEdges}</Figure>
            <Figure label={messages.sheet.branchingEdges}>{report.nonManifoldEdges}</Figure>
            <Figure label={messages.sheet.separateParts}>{report.parts}</Figure>
            <Figure label={messages.sheet.surface}>{show.area(report.areaMm2)}</Figure>
            <Figure label={messages.sheet.volume}>{show.volume(report.volumeMm3)}</Figure>
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
            ? messages.sheet.notCheckedWithATape
            : messages.sheet.scaledByTape(document.seat.tapeScale.toFixed(4))}
        </span>
        <button type="button" className="btn btn-sm" onClick={() => setPicking(true)}>
          {messages.sheet.tapeCheck}
        </button>
      </div>
    );
  }
  return (
    <div className="mt-1 border-l-4 border-accent bg-base-200 px-3 py-2">
      <p className="text-sm">
        {points.length < 2
          ? points.length === 0
            ? messages.sheet.clickTwoPoints
            : messages.sheet.clickTheSecond
          : messages.sheet.scanSays(show.length(apart ?? 0))}
      </p>
      {points.length === 2 && (
        <input
          className="input input-sm mt-1 w-full"
          aria-label={messages.sheet.distanceByTape}
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
          {messages.sheet.leaveIt}
        </button>
        <button type="button" className="btn btn-primary btn-sm" disabled={!apart || !taped} onClick={apply}>
          {messages.sheet.scaleToTheTape}
        </button>
      </div>
    </div>
  );
}
