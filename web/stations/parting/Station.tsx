import { useCallback, useContext, useEffect, useMemo, useState } from "react";
import { SECTION_PIGMENTS } from "../../../core/export/palette.ts";
import { jacketThicknessMm, usualGiveMm } from "../../../core/jacket/coat.ts";
import { type PlanDocument, SECTION_COUNTS } from "../../../core/plan/document/document.ts";
import { searchRatesOf } from "../../../core/plan/document/searchRates.ts";
import { warningInWords } from "../../../core/plan/results/warnings.ts";
import { type Direction, sharePull } from "../../../core/survey/directions.ts";
import { placeInWords } from "../../../core/survey/place.ts";
import { beginDrag, endDrag, usePlan } from "../../document/planStore.ts";
import { SettingsContext, useShow } from "../../lib/show.ts";
import { useShown } from "../../scene/useShown.ts";
import { useStage } from "../../scene/useStage.tsx";
import { Figure } from "../../ui/Figure.tsx";
import { Caution, Choice, More, Part } from "../../ui/fields.tsx";
import { LengthField } from "../../ui/LengthField.tsx";
import type { StationProps } from "../station.ts";
import { BeforeCoat } from "./parts/BeforeCoat.tsx";
import { Compare } from "./parts/Compare.tsx";
import { CutOffHere } from "./parts/CutOffHere.tsx";
import { FillList } from "./parts/FillList.tsx";
import { FillShown } from "./parts/FillShown.tsx";
import { LinesByHand } from "./parts/LinesByHand.tsx";
import { OutOfSight } from "./parts/OutOfSight.tsx";
import { PricesChanged } from "./parts/PricesChanged.tsx";
import { SectionCard } from "./parts/SectionCard.tsx";
import { TakeApart } from "./parts/TakeApart.tsx";
import { TakeAway } from "./parts/TakeAway.tsx";
import { useHand } from "./useHand.ts";

/** More tags than this on hidden stretches of line would cover the piece. */
const MOST_HIDDEN_TAGS = 3;

export function PartingStation({ document, planning }: StationProps) {
  const { stage, listeners } = useStage();
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const { rates } = useContext(SettingsContext);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [slide, setSlide] = useState<Record<number, number>>({});
  const { bundle } = planning;
  const { onBoard } = document.seat;
  const figures = planning.glance ?? bundle?.figures;
  const sections = useMemo(() => figures?.report.sections ?? [], [figures]);
  // Sections are numbered anew when their order changes; the one that was chosen stays chosen.
  const chosen = (chosenId !== null && (figures?.ids.sections.indexOf(chosenId) ?? -1) + 1) || null;
  const thickestMm = Math.max(0, ...sections.map(({ fillThickMm }) => fillThickMm));
  const [fillShown, setFillShown] = useState(false);
  const fill = fillShown && thickestMm > 0;
  useShown(bundle, onBoard, { piece: "plaster", sections: true, locks: !fill, fill });
  useEffect(() => {
    if (!stage || !bundle) return;
    const { giveMm } = bundle.figures.report;
    const locks = bundle.figures.locks.flatMap(({ section, at, biteMm }) =>
      at && biteMm > giveMm ? [{ at, text: `section ${section} held: presses ${show.length(biteMm)}` }] : [],
    );
    const longest = [...bundle.figures.report.hidden]
      .sort((a, b) => b.lengthMm - a.lengthMm)
      .slice(0, MOST_HIDDEN_TAGS);
    const hidden = longest.map(({ at, from, moveMm }) => ({
      at,
      text: `out of sight of ${from}${moveMm === null ? "" : `: move ${show.length(moveMm)}`}`,
    }));
    stage.setTags([...locks, ...hidden]);
    setSlide({});
  }, [stage, bundle, show]);
  useEffect(() => () => stage?.setTags([]), [stage]);
  useEffect(() => {
    for (const section of sections) stage?.slideSection(section.number, slide[section.number] ?? 0);
  }, [stage, sections, slide]);

  const hand = useHand(document, planning);
  const { layout } = hand;
  /** The pull of a section as the document has it; the plan's own where that is suggested. */
  const pullOf = useCallback(
    (number: number): Direction | null => {
      const section = sections[number - 1];
      if (!section) return null;
      return layout?.sections[section.origin]?.pull ?? document.parting.pulls?.[section.origin] ?? section.pull;
    },
    [sections, layout, document.parting.pulls],
  );
  /** Moving a pull makes the pulls the user's own; where lines are laid by hand, they stay. */
  const setPull = useCallback(
    (number: number, wanted: Direction) => {
      const section = sections[number - 1];
      if (!section) return;
      const pull = wanted;
      if (layout) {
        void hand.make({ kind: "pull", section: section.origin, pull });
        return;
      }
      // Sections that share a pull cannot be told apart by their pulls: their lines are taken in hand, and stay.
      if (sharePull(sections.map((other) => other.pull))) {
        void hand.make({ kind: "pull", section: number - 1, pull });
        return;
      }
      const held = sections.map((other) => other.pull);
      edit((plan) => {
        const pulls = plan.parting.pulls
          ? plan.parting.pulls.map((other, k) => (k === section.origin ? pull : other))
          : held.map((other, k) => (k === number - 1 ? pull : other));
        return { ...plan, parting: { ...plan.parting, pulls } };
      });
    },
    [sections, layout, hand, edit],
  );
  useEffect(() => {
    const pull = chosen === null ? null : pullOf(chosen);
    stage?.setHandles(
      pull && chosen !== null
        ? [
            {
              id: String(chosen),
              direction: pull,
              colour: SECTION_PIGMENTS[(chosen - 1) % SECTION_PIGMENTS.length].css,
              kind: "pull",
            },
          ]
        : [],
    );
    listeners.handle = (id, direction, phase) => {
      if (phase === "drag") return;
      beginDrag();
      setPull(Number(id), direction);
      endDrag();
    };
    return () => {
      listeners.handle = null;
    };
  }, [stage, listeners, chosen, pullOf, setPull]);
  useEffect(() => () => stage?.setHandles([]), [stage]);

  const suggest = (wanted: PlanDocument["parting"]["sections"]) =>
    edit((plan) => ({
      ...plan,
      parting: { ...plan.parting, sections: wanted, pulls: null, suggestedAt: null, layout: null },
    }));
  const raise = useCallback((byMm: number, numbers: readonly number[]) => stage?.raise(byMm, numbers), [stage]);
  useEffect(() => () => stage?.raise(0, []), [stage]);
  const lockedNumbers = useMemo(
    () => sections.filter(({ releases }) => !releases).map(({ number }) => number),
    [sections],
  );
  const boxMm = bundle?.figures.report.piece.boxMm;
  const where = (at: Direction) => (boxMm ? placeInWords(at, boxMm, show.length) : "");
  const zoneMm = figures?.report.zoneMm;
  const order = bundle?.figures.report.order;
  const hidden = bundle?.figures.report.hidden ?? [];
  return (
    <>
      <Part
        title="Suggest"
        aside={
          (layout || document.parting.pulls) && (
            <span className="quiet text-sm">{layout ? "lines laid by hand" : "pulls set by hand"}</span>
          )
        }
      >
        <Choice<PlanDocument["parting"]["sections"]>
          label="Sections"
          value={document.parting.sections}
          options={[
            { value: "auto", name: "Cheapest" },
            ...SECTION_COUNTS.map((count) => ({ value: count, name: String(count) })),
          ]}
          onChange={suggest}
        />
        {document.parting.pulls && !layout && (
          <button type="button" className="btn btn-sm mt-1 w-full" onClick={() => suggest(document.parting.sections)}>
            Suggest the pulls again
          </button>
        )}
        {!layout && (
          <PricesChanged
            suggestedAt={document.parting.suggestedAt}
            onAgain={() =>
              edit((plan) => ({ ...plan, parting: { ...plan.parting, suggestedAt: searchRatesOf(rates) } }))
            }
          />
        )}
        <More title="Rubber, fills, smallest section">
          <LengthField
            label="The rubber gives"
            hint="how deep a section may press into the jacket and still come off"
            valueMm={document.parting.giveMm ?? usualGiveMm(jacketThicknessMm(document.jacket.coats))}
            leastMm={0.2}
            mostMm={10}
            stepMm={0.1}
            onChange={(giveMm) => edit((plan) => ({ ...plan, parting: { ...plan.parting, giveMm } }))}
          />
          <LengthField
            label="Thickest silicone fill"
            hint="thicker fills are made of clay"
            valueMm={document.parting.mostSiliconeMm}
            leastMm={0}
            mostMm={60}
            stepMm={1}
            onChange={(mostSiliconeMm) => edit((plan) => ({ ...plan, parting: { ...plan.parting, mostSiliconeMm } }))}
          />
          <LengthField
            label="Smallest section"
            hint="the side of a square: no smaller section is suggested"
            valueMm={Math.round(Math.sqrt(document.parting.leastSectionMm2))}
            leastMm={0}
            mostMm={1000}
            stepMm={10}
            onChange={(sideMm) =>
              edit((plan) => ({ ...plan, parting: { ...plan.parting, leastSectionMm2: sideMm * sideMm } }))
            }
          />
        </More>
      </Part>
      <LinesByHand
        hand={hand}
        planning={planning}
        sections={sections}
        canTake={planning.quality === "settled" && bundle !== null}
        onSuggest={() => edit((plan) => ({ ...plan, parting: { ...plan.parting, layout: null } }))}
      />
      {bundle && (
        <Part title="Will it come off?">
          <p
            className={`font-medium ${lockedNumbers.length === 0 && (order?.circle.length ?? 0) === 0 ? "text-success" : "text-warning"}`}
            data-testid="verdict"
          >
            {verdict(
              sections.length,
              lockedNumbers.length,
              order?.circle ?? [],
              planning.quality === "settled" && !planning.glance,
            )}
          </p>
          <Figure label="Parting line">{show.length((figures ?? bundle.figures).report.partingLengthMm)}</Figure>
          <Figure label="Fill">
            {show.volume(sections.reduce((sum, { fillMm3 }) => sum + fillMm3, 0))}, silicone{" "}
            {show.mass((figures ?? bundle.figures).takeoff.fillG)}
          </Figure>
          {bundle.figures.cutOff && <CutOffHere cutOff={bundle.figures.cutOff} where={where} />}
          <BeforeCoat
            footClayMm3={bundle.figures.report.jacket.footClayMm3}
            footClayMm={document.jacket.footClayMm}
            onBoard={document.seat.onBoard}
            parts={bundle.figures.report.fillParts}
            where={where}
          />
          <FillList
            parts={bundle.figures.report.fillParts}
            where={where}
            costsMinor={bundle.figures.takeoff.fillsMinor}
            choices={document.parting.fills}
          />
          {thickestMm > 0 && <FillShown shown={fillShown} thickestMm={thickestMm} onShow={setFillShown} />}
          {bundle.figures.warnings
            .filter(({ kind }) => kind === "held" || kind === "circle" || kind === "lift" || kind === "lines")
            .map((warning) => warningInWords(warning, bundle.figures.report.piece.boxMm, show))
            .map((text) => (
              <Caution key={text}>{text}</Caution>
            ))}
          {zoneMm && zoneMm.keepClear > 0 && (
            <Caution>{`${show.length(zoneMm.keepClear)} of line run through a zone to keep clear.`}</Caution>
          )}
          {zoneMm && zoneMm.fragile > 0 && (
            <Caution>{`${show.length(zoneMm.fragile)} of line run through a fragile zone.`}</Caution>
          )}
          {hidden.length > 0 && <OutOfSight hidden={hidden} onMove={(change) => void hand.make(change)} />}
          {order && sections.length > 0 && (
            <TakeApart order={order} locked={lockedNumbers} onMove={setSlide} onRaise={raise} />
          )}
        </Part>
      )}
      {sections.map((section, k) => (
        <SectionCard
          key={figures?.ids.sections[k] || section.number}
          section={section}
          massG={figures?.takeoff.sectionMassesG[k] ?? 0}
          where={where}
          pull={pullOf(section.number) ?? section.pull}
          open={chosen === section.number}
          giveMm={figures?.report.giveMm ?? 0}
          out={slide[section.number] ?? 0}
          planning={planning}
          onOpen={(open) => setChosenId(open ? (figures?.ids.sections[k] ?? null) : null)}
          onSlide={(out) => setSlide({ ...slide, [section.number]: out })}
          treatment={layout?.sections[section.origin] ?? {}}
          onPull={(pull) => setPull(section.number, pull)}
          onLook={() => stage?.look("pull", pullOf(section.number) ?? section.pull)}
          onTreat={(treatment) => hand.treat(section.number, treatment)}
        />
      ))}
      <Compare
        planning={planning}
        heldFor={planning.comparedBy}
        chosen={document.parting.pulls || layout ? "auto" : document.parting.sections}
        onTake={suggest}
      />
      {planning.geometry && <TakeAway planning={planning} />}
    </>
  );
}

function verdict(sections: number, locked: number, circle: readonly number[], settled: boolean): string {
  if (locked > 0) return `▲ ${locked} of ${sections} sections ${locked === 1 ? "is" : "are"} held.`;
  if (circle.length > 0) return `▲ Sections ${circle.join(" and ")} block each other.`;
  // A first glance proves nothing.
  if (!settled) return "At first glance it comes off; the proof is under way.";
  return sections === 1 ? "● Yes: it comes off in one section." : `● Yes: all ${sections} sections come off.`;
}
