import { ArrowLeft, Lock } from "lucide-react";
import { useContext, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import type { Build } from "../../../contract/builds.ts";
import type { PlanBundle } from "../../../core/plan/results/bundle.ts";
import type { GeometryReport } from "../../../core/plan/results/report.ts";
import { moment } from "../../lib/dates.ts";
import { usePiece } from "../../lib/queries.ts";
import { LEAST_SHOWN_MM3, SettingsContext, useShow } from "../../lib/show.ts";
import { Clay } from "../../scene/Clay.tsx";
import { useShown } from "../../scene/useShown.ts";
import { StageProvider, useStage } from "../../scene/useStage.tsx";
import { Part } from "../../ui/fields.tsx";
import { tallyLines } from "./tallyLines.ts";
import { useBuild, useBuiltGeometry } from "./useBuilds.ts";

/** A plan that is built from, as it stood on that day: its geometry, its figures, its money. Nothing here is edited. */
export function BuildPage() {
  const { pieceId = "", buildId = "" } = useParams();
  const { theme } = useContext(SettingsContext);
  const piece = usePiece(pieceId);
  const build = useBuild(piece.data, buildId);
  const geometry = useBuiltGeometry(piece.data, buildId);
  const trouble = piece.error ?? build.error ?? geometry.error;
  if (trouble) throw trouble;
  if (!piece.data || !build.data || geometry.data === undefined) return <p className="p-8">Fetching the plan…</p>;
  const { name, madeAt, madeBy, document } = build.data;
  return (
    <div className="flex h-full flex-col overflow-hidden">
      <header className="flex h-12 shrink-0 items-center gap-3 border-b border-base-300 bg-base-100 px-4">
        <Link to={`/pieces/${pieceId}`} className="btn btn-ghost btn-sm">
          <ArrowLeft aria-hidden="true" size={16} />
          Back to the draft
        </Link>
        <h1 className="truncate border-l border-base-300 pl-3 text-lg font-semibold">{`${piece.data.name}: ${name}`}</h1>
        <span className="quiet flex items-center gap-1 text-sm">
          <Lock aria-hidden="true" size={14} />
          {`Kept as it stood on ${moment(madeAt)}${madeBy ? `, by ${madeBy.name}` : ""}`}
        </span>
      </header>
      <div className="flex min-h-0 grow">
        <StageProvider night={theme === "night"} overlay={null}>
          <Clay stops={document.jacket.stops} onBoard={document.seat.onBoard} />
          <aside
            className="w-[22.5rem] shrink-0 overflow-y-auto border-l border-base-300 bg-base-100"
            aria-label="What is built"
          >
            <Built build={build.data} bundle={geometry.data} />
          </aside>
        </StageProvider>
      </div>
    </div>
  );
}

/** The kept plan on the stage, and its figures. */
function Built({ build, bundle }: { build: Build; bundle: PlanBundle | null }) {
  const { document, figures, rates } = build;
  const show = useShow();
  const { report, takeoff } = figures;
  const drawn = bundle && { ...bundle, figures };
  useShown(drawn, document.seat.onBoard, { piece: "plaster", sections: true });
  return (
    <>
      {!bundle && <p className="p-4 text-sm">The shapes of this plan were not kept, its figures were.</p>}
      <Part title="The tally on that day">
        <table className="w-full text-sm" data-testid="built-tally">
          <tbody>
            {tallyLines(figures, rates.currency, show).map(([name, value]) => (
              <tr key={name} className="border-t border-base-300">
                <td className="quiet py-1">{name}</td>
                <td className="py-1 text-right">{value}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Part>
      <Part title="Sections">
        {bundle && <Apart order={report.order} />}
        <ol className="text-sm">
          {report.sections.map((section, k) => (
            <li key={section.number} className="flex justify-between gap-2 border-t border-base-300 py-1">
              <span className="font-medium">
                {section.plugUnder === null ? `Section ${section.number}` : `Plug under ${section.plugUnder}`}
              </span>
              <span className="quiet text-right">
                {`${show.area(section.areaMm2)}, ${show.mass(takeoff.sectionMassesG[k])}`}
                {section.fillMm3 >= LEAST_SHOWN_MM3 && `, fill ${show.volume(section.fillMm3)}`}
              </span>
            </li>
          ))}
        </ol>
      </Part>
    </>
  );
}

/** Of the time that the first section after the lift takes, so much goes into the lift. */
const LIFT_SHARE = 0.3;

/** Slides the sections out in the order they come off; the piece is raised where it is lifted. */
function Apart({ order: { remove, liftBefore, liftMm } }: { order: GeometryReport["order"] }) {
  const { stage } = useStage();
  const [at, setAt] = useState(0);
  useEffect(() => {
    const lifted = liftBefore === null ? remove.length : remove.indexOf(liftBefore);
    const raised = Math.max(0, Math.min(1, (at - lifted) / LIFT_SHARE));
    stage?.raise(raised * liftMm, remove.slice(lifted));
    remove.forEach((number, k) => {
      stage?.slideSection(number, Math.max(0, Math.min(1, at - k)));
    });
  }, [stage, remove, liftBefore, liftMm, at]);
  return (
    <label className="mb-2 block text-sm">
      <span className="quiet">Take it apart</span>
      <input
        type="range"
        className="range range-sm w-full"
        min={0}
        max={remove.length}
        step={0.02}
        value={at}
        onChange={(event) => setAt(Number(event.target.value))}
      />
    </label>
  );
}
