import { SECTION_PIGMENTS } from "../../../../core/display/palette.ts";
import type { FillWith, Hold, Treatment } from "../../../../core/parting/layout/layout.ts";
import type { GeometryReport } from "../../../../core/plan/results/report.ts";
import type { Direction } from "../../../../core/space/directions.ts";
import { type Show, useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { DirectionFields } from "../../../ui/DirectionFields.tsx";
import { Figure } from "../../../ui/Figure.tsx";
import { Choice } from "../../../ui/fields.tsx";
import type { StationProps } from "../../station.ts";
import { Remedies } from "./Remedies.tsx";
import { WhereFrom } from "./WhereFrom.tsx";

/** One section: whether it comes off, how far it is slid out, and where it is pulled. */
export function SectionCard({
  section,
  massG,
  where,
  pull,
  open,
  giveMm,
  out,
  treatment,
  planning,
  onOpen,
  onSlide,
  onPull,
  onLook,
  onTreat,
}: {
  section: GeometryReport["sections"][number];
  /** Mass of its shell, g. */
  massG: number;
  /** A place of the piece in words. */
  where: (at: Direction) => string;
  pull: Direction;
  open: boolean;
  /** How deep a section may press into the rubber and still come off, mm. */
  giveMm: number;
  /** How far it is slid out, 0..1. */
  out: number;
  /** What was decided for it by hand. */
  treatment: Treatment;
  planning: StationProps["planning"];
  onOpen: (open: boolean) => void;
  onSlide: (out: number) => void;
  onPull: (pull: Direction) => void;
  /** Shows the piece as the section sees it when it leaves. */
  onLook: () => void;
  onTreat: (treatment: Treatment) => void;
}) {
  const show = useShow();
  const { stage } = useStage();
  const pigment = SECTION_PIGMENTS[(section.number - 1) % SECTION_PIGMENTS.length];
  return (
    <section className="border-b border-base-300 px-5 py-3">
      <button
        type="button"
        className="flex w-full items-center gap-3 text-left"
        aria-expanded={open}
        onClick={() => onOpen(!open)}
      >
        <span
          className="grid h-9 w-9 place-items-center font-stencil text-xl"
          style={{ background: pigment.css, color: pigment.figure === "light" ? "#fff" : "#22303a" }}
        >
          {section.number}
        </span>
        <span className="grow">
          <span className="block font-medium">
            {section.plugUnder !== null && `Plug under ${section.plugUnder}: `}
            {statusOf(section, show)}
          </span>
          <span className="quiet block text-sm">
            {show.area(section.areaMm2)}, {show.mass(massG)}
            {section.fillMm3 > 0 && `, fill ${show.volume(section.fillMm3)}`}
            {treatment.hold && `, ${treatment.hold === "pull" ? "pull held" : "held"}`}
          </span>
        </span>
        <span aria-hidden="true" className="quiet">
          {open ? "−" : "+"}
        </span>
      </button>
      <label className="mt-2 block">
        <span className="sr-only">Slide section {section.number} out</span>
        <input
          type="range"
          className="range range-xs w-full"
          min={0}
          max={1}
          step={0.01}
          value={out}
          aria-label={`Slide section ${section.number} out`}
          onChange={(event) => onSlide(Number(event.target.value))}
        />
      </label>
      {open && (
        <div className="mt-1">
          <div className="flex items-baseline justify-between gap-2">
            <p className="quiet text-sm">Drag its arrow on the stage, or set the pull here.</p>
            <button type="button" className="btn btn-xs shrink-0" onClick={onLook}>
              Look along it
            </button>
          </div>
          <DirectionFields direction={pull} leastElevationDeg={-90} onChange={onPull} />
          <Figure label="presses into the rubber at most">{`${show.length(section.biteMm)} of ${show.length(giveMm)}`}</Figure>
          <Figure label="moves before it is clear">{show.length(section.travelMm)}</Figure>
          {section.biteAt && !section.releases && (
            <button
              type="button"
              className="btn btn-sm my-1 w-full"
              onClick={() => stage?.comeTo(section.biteAt as Direction)}
            >
              {`Held at: ${where(section.biteAt)}`}
            </button>
          )}
          <Figure label="Fill">{show.volume(section.fillMm3)}</Figure>
          {section.fillThickMm > 0 && <Figure label="thickest of the fill">{show.length(section.fillThickMm)}</Figure>}
          {(section.fillMm3 > 0 || section.fillWith !== "silicone") && (
            <Choice<FillWith>
              label="Its fills are"
              value={treatment.fillWith ?? "silicone"}
              options={[
                { value: "silicone", name: "As suggested" },
                { value: "clay", name: "All of clay" },
                { value: "open", name: "Left open" },
              ]}
              onChange={(fillWith) => onTreat({ fillWith })}
            />
          )}
          {(!section.releases || section.fillMm3 > 0) && (
            <Remedies section={section.number} locked={!section.releases} planning={planning} />
          )}
          <Choice<Hold | "free">
            label="While the rest is suggested"
            value={treatment.hold ?? "free"}
            options={[
              { value: "free", name: "Free" },
              { value: "pull", name: "Keep its pull" },
              { value: "section", name: "Keep it whole" },
            ]}
            onChange={(hold) => onTreat({ hold: hold === "free" ? undefined : hold })}
          />
          <WhereFrom number={section.number} pull={pull} planning={planning} onPull={onPull} />
        </div>
      )}
    </section>
  );
}

/** Whether a section comes off, and how deep it presses on the way. */
function statusOf({ releases, biteMm, lifted, plugUnder }: GeometryReport["sections"][number], show: Show): string {
  if (!releases)
    return plugUnder === null ? `Held: presses ${show.length(biteMm)}` : `held: presses ${show.length(biteMm)}`;
  const leaves = `${plugUnder === null ? "Comes" : "comes"} off${lifted ? ", once the piece is lifted" : ""}`;
  return biteMm < 0.1 ? leaves : `${leaves}; presses ${show.length(biteMm)} at most`;
}
