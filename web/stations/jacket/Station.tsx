import { X } from "lucide-react";
import { useEffect, useState } from "react";
import { type Coat, jacketThicknessMm, plainCoat } from "../../../core/jacket/coat.ts";
import { CAUTIONS } from "../../../core/materials/cautions.ts";
import { TYPICAL } from "../../../core/materials/property.ts";
import { siliconeOf } from "../../../core/materials/silicone.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { freshId } from "../../../core/plan/document/identity.ts";
import { fromEntry, lengthEntry, toEntry } from "../../../core/units/index.ts";
import { usePlan } from "../../document/planStore.ts";
import { useShow } from "../../lib/show.ts";
import { OpenCautions } from "../../planning/OpenCautions.tsx";
import { useShown } from "../../scene/useShown.ts";
import { useStage } from "../../scene/useStage.tsx";
import { Figure } from "../../ui/Figure.tsx";
import { Caution, Part } from "../../ui/fields.tsx";
import { LengthField } from "../../ui/LengthField.tsx";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { OffThePiece } from "./OffThePiece.tsx";
import { SeamPart } from "./SeamPart.tsx";

export function JacketStation({ document, planning }: StationProps) {
  const { stage } = useStage();
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const [open, setOpen] = useState(0.38);
  const { bundle } = planning;
  useShown(bundle, document.seat.onBoard, { piece: "plaster" });
  useEffect(() => {
    if (stage && bundle) stage.setJacket(bundle.jacket, open);
    return () => stage?.setJacket(null, 0);
  }, [stage, bundle, open]);
  const jacket = (change: Partial<PlanDocument["jacket"]>) =>
    edit((plan) => ({ ...plan, jacket: { ...plan.jacket, ...change } }));
  const { coats } = document.jacket;
  const setCoat = (k: number, change: Partial<Coat>) =>
    jacket({ coats: coats.map((coat, n) => (n === k ? { ...coat, ...change } : coat)) });
  const figures = bundle?.figures.report.jacket;
  const total = jacketThicknessMm(coats);
  return (
    <>
      <Part
        title={messages.sheet.coats}
        aside={<span className="font-medium">{messages.sheet.inAll(show.length(total))}</span>}
      >
        <table className="w-full text-sm">
          <thead>
            <tr className="quiet text-left text-xs">
              <th className="w-7 font-normal">{messages.sheet.tint}</th>
              <th className="font-normal">{messages.sheet.thickness}</th>
              <th className="font-normal">{messages.sheet.thickened}</th>
              <th className="text-right font-normal">{messages.sheet.silicone}</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {coats.map((coat, k) => (
              <tr key={coat.id} className="border-t border-base-300">
                <td>
                  <input
                    type="color"
                    aria-label={messages.sheet.pigmentOfCoat(k + 1)}
                    className="h-7 w-7 cursor-pointer"
                    value={coat.pigment}
                    onChange={(event) => setCoat(k, { pigment: event.target.value })}
                  />
                </td>
                <td>
                  <CoatThickness coat={coat} number={k + 1} onChange={(thicknessMm) => setCoat(k, { thicknessMm })} />
                </td>
                <td>
                  {k === 0 && coats.length > 1 ? (
                    <span className="quiet">{messages.sheet.printCoat}</span>
                  ) : (
                    <input
                      type="checkbox"
                      className="checkbox checkbox-sm"
                      aria-label={messages.sheet.coatIsThickened(k + 1)}
                      checked={coat.thickened}
                      onChange={(event) => setCoat(k, { thickened: event.target.checked })}
                    />
                  )}
                </td>
                <td className="text-right font-medium whitespace-nowrap">
                  {figures?.coats.length === coats.length ? show.mass(figures.coats[k].massG) : "…"}
                </td>
                <td className="text-right">
                  {coats.length > 1 && (
                    <button
                      type="button"
                      className="btn btn-ghost btn-xs px-1"
                      aria-label={messages.sheet.leaveOutCoat(k + 1)}
                      onClick={() => jacket({ coats: coats.filter((_, n) => n !== k) })}
                    >
                      <X aria-hidden="true" size={14} />
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <button
          type="button"
          className="btn btn-sm mt-2 w-full"
          disabled={coats.length >= 12}
          onClick={() =>
            edit((plan) => {
              const { id, identity } = freshId(plan.identity, "coat");
              const added = plainCoat({ id, thicknessMm: 2, thickened: true, pigment: "#b9a7cf" });
              return { ...plan, identity, jacket: { ...plan.jacket, coats: [...plan.jacket.coats, added] } };
            })
          }
        >
          {messages.sheet.addACoat}
        </button>
        <OpenCautions document={document} places={["surface", "jacket"]} />
        {total > 12 && <Caution>{messages.sheet.tooThick}</Caution>}
        {total < 4 && <Caution>{messages.sheet.tooThin}</Caution>}
      </Part>
      <Part title={messages.sheet.outside}>
        <LengthField
          label={messages.sheet.smoothing}
          hint={messages.sheet.smoothingHint}
          valueMm={document.jacket.smoothingMm}
          leastMm={0}
          mostMm={120}
          onChange={(smoothingMm) => jacket({ smoothingMm })}
        />
        <LengthField
          label={messages.sheet.footClay}
          hint={messages.sheet.footClayHint}
          valueMm={document.jacket.footClayMm}
          leastMm={0}
          mostMm={200}
          stepMm={5}
          onChange={(footClayMm) => jacket({ footClayMm })}
        />
        <LengthField
          label={messages.sheet.rimOnTheBoard}
          valueMm={document.jacket.rimWidthMm}
          leastMm={0}
          mostMm={500}
          stepMm={5}
          onChange={(rimWidthMm) => jacket({ rimWidthMm })}
        />
        <label className="block pt-2">
          <span className="quiet text-sm">{messages.sheet.cutTheJacketAway}</span>
          <input
            type="range"
            className="range range-sm w-full"
            min={0}
            max={1}
            step={0.01}
            value={open}
            onChange={(event) => setOpen(Number(event.target.value))}
          />
        </label>
      </Part>
      <OffThePiece planning={planning} document={document} />
      <SeamPart document={document} planning={planning} />
      {figures && (
        <Part title={messages.sheet.silicone}>
          <Figure
            label={messages.sheet.onThePiece}
            working={{
              formula: messages.sheet.formula,
              inputs: [
                { name: "jacket, outside", value: figures.outerVolumeMm3 / 1e6, unit: "l" },
                { name: "piece", value: bundle.figures.report.piece.volumeMm3 / 1e6, unit: "l" },
                { name: "rim", value: figures.rimMm3 / 1e6, unit: "l" },
                {
                  name: "density",
                  value: siliconeOf(document.jacket.silicone, document.materials.own).densityGPerCm3,
                  unit: `g/cm³, ${TYPICAL}`,
                },
              ],
            }}
          >
            {show.mass(figures.siliconeG)}
          </Figure>
          <Figure label={messages.sheet.volume}>{show.volume(figures.siliconeMm3)}</Figure>
          <Figure label={messages.sheet.outerSurface}>{show.area(figures.outerAreaMm2)}</Figure>
          <Figure label={messages.sheet.workedOutAtAStepOf}>{show.length(figures.stepMm)}</Figure>
          <Caution>{CAUTIONS["thickener-dust"]}</Caution>
          <Caution>{CAUTIONS["silicone-cure"]}</Caution>
        </Part>
      )}
    </>
  );
}

const COAT_LEAST_MM = 0.1;
const COAT_MOST_MM = 60;

function CoatThickness({ coat, number, onChange }: { coat: Coat; number: number; onChange: (value: number) => void }) {
  const { units } = useShow();
  const { unit, step } = lengthEntry(units, 0.1);
  const value = toEntry(coat.thicknessMm, units);
  const [text, setText] = useState(String(value));
  useEffect(() => setText((held) => (Number(held) === value ? held : String(value))), [value]);
  const typedMm = fromEntry(Number(text), units);
  const wrong = !(typedMm >= COAT_LEAST_MM && typedMm <= COAT_MOST_MM);
  return (
    <label className={`input input-xs my-1 w-22 ${wrong ? "input-error" : ""}`}>
      <input
        type="number"
        aria-label={messages.sheet.thicknessOfCoat(number)}
        className="text-right"
        step={step}
        min={toEntry(COAT_LEAST_MM, units)}
        max={toEntry(COAT_MOST_MM, units)}
        value={text}
        aria-invalid={wrong}
        onChange={(event) => {
          setText(event.target.value);
          const nextMm = fromEntry(Number(event.target.value), units);
          if (nextMm >= COAT_LEAST_MM && nextMm <= COAT_MOST_MM && nextMm !== coat.thicknessMm) onChange(nextMm);
        }}
      />
      <span className="quiet">{unit}</span>
    </label>
  );
}
