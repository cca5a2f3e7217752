import { SECTION_PIGMENTS } from "../../../../core/display/palette.ts";
import type { FillWith, Hold, Treatment } from "../../../../core/parting/layout/layout.ts";
import type { GeometryReport } from "../../../../core/plan/results/report.ts";
import type { Direction } from "../../../../core/space/directions.ts";
import { LEAST_SHOWN_MM3, type Show, useShow } from "../../../lib/show.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { DirectionFields } from "../../../ui/DirectionFields.tsx";
import { Figure } from "../../../ui/Figure.tsx";
import { Choice } from "../../../ui/fields.tsx";
import type { StationProps } from "../../station.ts";
import { messages } from "../messages.ts";
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
            {section.plugUnder !== null && messages.sectionCard.plugUnder(section.plugUnder)}
            {statusOf(section, show)}
          </span>
          <span className="quiet block text-sm">
            {show.area(section.areaMm2)}, {show.mass(massG)}
            {section.fillMm3 >= LEAST_SHOWN_MM3 && messages.sectionCard.withFill(show.volume(section.fillMm3))}
            {treatment.hold &&
              (treatment.hold === "pull" ? messages.sectionCard.pullHeld : messages.sectionCard.sectionHeld)}
          </span>
        </span>
        <span aria-hidden="true" className="quiet">
          {open ? "−" : "+"}
        </span>
      </button>
      <label className="mt-2 block">
        <span className="sr-only">{messages.sectionCard.slideSectionOut(section.number)}</span>
        <input
          type="range"
          className="range range-xs w-full"
          min={0}
          max={1}
          step={0.01}
          value={out}
          aria-label={messages.sectionCard.slideSectionOut(section.number)}
          onChange={(event) => onSlide(Number(event.target.value))}
        />
      </label>
      {open && (
        <div className="mt-1">
          <div className="flex items-baseline justify-between gap-2">
            <p className="quiet text-sm">{messages.sectionCard.dragItsArrowOnTheStageOr}</p>
            <button type="button" className="btn btn-xs shrink-0" onClick={onLook}>
              {messages.sectionCard.lookAlongIt}
            </button>
          </div>
          <DirectionFields direction={pull} leastElevationDeg={-90} onChange={onPull} />
          <Figure label={messages.sectionCard.pressesIntoTheRubberAtMost}>
            {messages.sectionCard.pressesOf(show.length(section.biteMm), show.length(giveMm))}
          </Figure>
          <Figure label={messages.sectionCard.movesBeforeItIsClear}>{show.length(section.travelMm)}</Figure>
          {section.biteAt && !section.releases && (
            <button
              type="button"
              className="btn btn-sm my-1 w-full"
              onClick={() => stage?.comeTo(section.biteAt as Direction)}
            >
              {messages.sectionCard.heldAt(where(section.biteAt))}
            </button>
          )}
          <Figure label={messages.sectionCard.fill}>{show.volume(section.fillMm3)}</Figure>
          {section.fillThickMm > 0 && (
            <Figure label={messages.sectionCard.thickestOfTheFill}>{show.length(section.fillThickMm)}</Figure>
          )}
          {(section.fillMm3 > 0 || section.fillWith !== "silicone") && (
            <Choice<FillWith>
              label={messages.sectionCard.itsFillsAre}
              value={treatment.fillWith ?? "silicone"}
              options={[
                { value: "silicone", name: messages.sectionCard.asSuggested },
                { value: "clay", name: messages.sectionCard.allOfClay },
                { value: "open", name: messages.sectionCard.leftOpen },
              ]}
              onChange={(fillWith) => onTreat({ fillWith })}
            />
          )}
          {(!section.releases || section.fillMm3 > 0) && (
            <Remedies section={section.number} locked={!section.releases} planning={planning} />
          )}
          <Choice<Hold | "free">
            label={messages.sectionCard.whileTheRestIsSuggested}
            value={treatment.hold ?? "free"}
            options={[
              { value: "free", name: messages.sectionCard.free },
              { value: "pull", name: messages.sectionCard.keepItsPull },
              { value: "section", name: messages.sectionCard.keepItWhole },
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
    return plugUnder === null
      ? messages.sectionCard.held(show.length(biteMm))
      : messages.sectionCard.plugHeld(show.length(biteMm));
  const { comesOff, plugComesOff } = messages.sectionCard;
  const leaves = plugUnder === null ? comesOff(lifted) : plugComesOff(lifted);
  return biteMm < 0.1 ? leaves : messages.sectionCard.pressesAtMost(leaves, show.length(biteMm));
}
