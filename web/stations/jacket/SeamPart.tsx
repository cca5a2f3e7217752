import { useEffect, useState } from "react";
import { jacketThicknessMm } from "../../../core/jacket/coat.ts";
import { SEAM_SCHOOLS, type Seam, type SeamSchoolId, seamSchool, seamTakeoff } from "../../../core/jacket/seam.ts";
import { siliconeOf } from "../../../core/materials/silicone.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { usePlan } from "../../document/planStore.ts";
import { useShow } from "../../lib/show.ts";
import type { Planning } from "../../planning/usePlanning.ts";
import { useStage } from "../../scene/useStage.tsx";
import { Figure } from "../../ui/Figure.tsx";
import { Caution, Choice, Part } from "../../ui/fields.tsx";
import { messages } from "./messages.ts";

type Place = [number, number, number];

/** The jacket's own seam: what kind, made how, and where it runs. */
export function SeamPart({ document, planning }: { document: PlanDocument; planning: Planning }) {
  const show = useShow();
  const { stage, listen } = useStage();
  const edit = usePlan((plan) => plan.edit);
  const [picked, setPicked] = useState<readonly Place[] | null>(null);
  const [busy, setBusy] = useState(false);
  /** The suggested line alone does not part the jacket: holes run through it. */
  const [holes, setHoles] = useState(false);
  const { seam, coats } = document.jacket;
  const { onBoard } = document.seat;
  const { bundle, geometry } = planning;
  const change = (next: Partial<Seam>) =>
    edit((plan) => ({ ...plan, jacket: { ...plan.jacket, seam: { ...plan.jacket.seam, ...next } } }));
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new plan clears the stage's lines.
  useEffect(() => {
    const shown = seam.kind !== "none" && seam.points.length > 3;
    stage?.setLines(shown ? [{ points: Float32Array.from(seam.points), closed: false }] : []);
  }, [stage, seam, bundle]);
  useEffect(() => () => stage?.setLines([]), [stage]);
  useEffect(() => {
    stage?.setPicks(picked ?? [], false);
    stage?.setTouch(picked ? { on: "jacket", how: "pick" } : null);
    const stop = picked ? listen("onPick", (point) => setPicked((before) => [...(before ?? []), point])) : () => {};
    return () => {
      stop();
      stage?.setPicks([]);
      stage?.setTouch(null);
    };
  }, [stage, listen, picked]);

  const suggest = async (kind: Seam["kind"]) => {
    if (kind === "none" || !bundle || !geometry) return;
    setBusy(true);
    const { slitMm } = await geometry.api.stretch(
      bundle.piece,
      siliconeOf(document.jacket.silicone).workingStretch.value,
    );
    const { points, lines } = await geometry.api.seamRoute(bundle.survey, onBoard, {
      kind,
      // Where no slit is needed by stretch, one to the middle makes the jacket easy to open.
      slitMm: slitMm > 0 ? slitMm : bundle.figures.report.piece.sizeMm[2] / 2,
      keepClear: document.zones.keepClear,
      overMm: jacketThicknessMm(coats),
    });
    setBusy(false);
    setHoles(kind === "parts" && lines > 1);
    change({ kind, points: [...points] });
  };
  const finish = async () => {
    if (!picked || !bundle || !geometry) return;
    setBusy(true);
    const points = await geometry.api.wayThrough(bundle.survey, onBoard, picked);
    setBusy(false);
    setPicked(null);
    setHoles(false);
    change({ points });
  };
  const takeoff = seamTakeoff(seam, jacketThicknessMm(coats));
  return (
    <Part title={messages.seamPart.theJacketsOwnSeam}>
      <Choice<Seam["kind"]>
        label=""
        value={seam.kind}
        options={[
          { value: "none", name: messages.seamPart.none },
          { value: "slit", name: messages.seamPart.oneSlit },
          { value: "parts", name: messages.seamPart.twoParts },
        ]}
        onChange={(kind) => (kind === "none" ? change({ kind, points: [] }) : void suggest(kind))}
      />
      {seam.kind !== "none" && (
        <>
          <label className="flex items-center justify-between gap-3 py-1 text-sm">
            <span className="quiet">{messages.seamPart.madeBy}</span>
            <select
              className="select select-sm w-44"
              value={seam.school}
              onChange={(event) => change({ school: event.target.value as SeamSchoolId })}
            >
              {SEAM_SCHOOLS.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          <p className="quiet pb-1 text-sm">{seamSchool(seam.school).does}</p>
          <Figure
            label={messages.seamPart.seam}
            working={{
              formula: messages.seamPart.formula,
              inputs: [
                { name: "length", value: takeoff.lengthMm / 1000, unit: "m" },
                {
                  name: "making",
                  value: seamSchool(seam.school).minPerM.value,
                  unit: `min/m, ${seamSchool(seam.school).minPerM.source}`,
                },
              ],
            }}
          >
            {show.length(takeoff.lengthMm)}
          </Figure>
          <Figure label={messages.seamPart.makingIt}>{show.hours(takeoff.makeMin)}</Figure>
          <div className="mt-1 grid grid-cols-2 gap-1" data-testid="seam">
            {picked ? (
              <>
                <button
                  type="button"
                  className="btn btn-sm"
                  disabled={picked.length < 2 || busy}
                  onClick={() => void finish()}
                >
                  {messages.seamPart.finish(picked.length)}
                </button>
                <button type="button" className="btn btn-sm" onClick={() => setPicked(null)}>
                  {messages.seamPart.leaveIt}
                </button>
              </>
            ) : (
              <>
                <button type="button" className="btn btn-sm" disabled={busy} onClick={() => void suggest(seam.kind)}>
                  {busy ? messages.seamPart.looking : messages.seamPart.suggestARoute}
                </button>
                <button type="button" className="btn btn-sm" disabled={busy} onClick={() => setPicked([])}>
                  {messages.seamPart.drawIt}
                </button>
              </>
            )}
          </div>
          {holes && <Caution>{messages.seamPart.stillHangs}</Caution>}
          <p className="quiet mt-1 text-xs">{messages.seamPart.suggestedWhere}</p>
        </>
      )}
    </Part>
  );
}
