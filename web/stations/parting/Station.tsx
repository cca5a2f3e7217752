import { useCallback, useEffect, useMemo, useState } from "react";
import { SECTION_PIGMENTS } from "../../../core/display/palette.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { type Direction, sharePull } from "../../../core/space/directions.ts";
import { placeInWords } from "../../../core/survey/place.ts";
import { beginDrag, endDrag, usePlan } from "../../document/planStore.ts";
import { useShow } from "../../lib/show.ts";
import { useShown } from "../../scene/useShown.ts";
import { useStage } from "../../scene/useStage.tsx";
import { Figure } from "../../ui/Figure.tsx";
import { Caution, Part } from "../../ui/fields.tsx";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { Compare } from "./parts/Compare.tsx";
import { FillList } from "./parts/FillList.tsx";
import { FillShown } from "./parts/FillShown.tsx";
import { LinesByHand } from "./parts/LinesByHand.tsx";
import { OutOfSight } from "./parts/OutOfSight.tsx";
import { SectionCard } from "./parts/SectionCard.tsx";
import { Suggest } from "./parts/Suggest.tsx";
import { TakeAway } from "./parts/TakeAway.tsx";
import { Verdict } from "./parts/Verdict.tsx";
import { useHand } from "./useHand.ts";

/** More tags than this on hidden stretches of line would cover the piece. */
const MOST_HIDDEN_TAGS = 3;

export function PartingStation({ document, planning }: StationProps) {
  const { stage, listen } = useStage();
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [slide, setSlide] = useState<Record<number, number>>({});
  const { bundle } = planning;
  const { onBoard } = document.seat;
  const figures = planning.glance ?? bundle?.figures;
  const sections = useMemo(() => figures?.report.sections ?? [], [figures]);
  // Sections are numbered again when their order changes; the one that was chosen stays chosen.
  const chosen = (chosenId !== null && (figures?.ids.sections.indexOf(chosenId) ?? -1) + 1) || null;
  const thickestMm = Math.max(0, ...sections.map(({ fillThickMm }) => fillThickMm));
  const [fillShown, setFillShown] = useState(false);
  const fill = fillShown && thickestMm > 0;
  useShown(bundle, onBoard, { piece: "plaster", sections: true, locks: !fill, fill });
  useEffect(() => {
    if (!stage || !bundle) return;
    const { giveMm } = bundle.figures.report;
    const locks = bundle.figures.locks.flatMap(({ section, at, biteMm }) =>
      at && biteMm > giveMm ? [{ at, text: messages.sheet.sectionHeldPresses(section, show.length(biteMm)) }] : [],
    );
    const longest = [...bundle.figures.report.hidden]
      .sort((a, b) => b.lengthMm - a.lengthMm)
      .slice(0, MOST_HIDDEN_TAGS);
    const hidden = longest.map(({ at, from, moveMm }) => ({
      at,
      text: messages.sheet.outOfSightOf(from, moveMm === null ? null : show.length(moveMm)),
    }));
    stage.setTags([...locks, ...hidden]);
  }, [stage, bundle, show]);
  const skins = bundle?.skins;
  // biome-ignore lint/correctness/useExhaustiveDependencies: other sections stand together; where only figures change, these stay where they are.
  useEffect(() => setSlide({}), [skins]);
  useEffect(() => () => stage?.setTags([]), [stage]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: sections that are drawn again are slid out as before.
  useEffect(() => {
    for (const section of sections) stage?.slideSection(section.number, slide[section.number] ?? 0);
  }, [stage, sections, slide, bundle]);

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
    return listen("onHandle", (id, direction, phase) => {
      if (phase === "drag") return;
      beginDrag();
      setPull(Number(id), direction);
      endDrag();
    });
  }, [stage, listen, chosen, pullOf, setPull]);
  useEffect(() => () => stage?.setHandles([]), [stage]);

  const suggest = (wanted: PlanDocument["parting"]["sections"]) =>
    edit((plan) => ({
      ...plan,
      parting: { ...plan.parting, sections: wanted, pulls: null, suggestedAt: null, layout: null },
    }));
  const raise = useCallback((byMm: number, numbers: readonly number[]) => stage?.raise(byMm, numbers), [stage]);
  useEffect(() => () => stage?.raise(0, []), [stage]);
  const boxMm = bundle?.figures.report.piece.boxMm;
  const where = (at: Direction) => (boxMm ? placeInWords(at, boxMm, show.length) : "");
  const zoneMm = figures?.report.zoneMm;
  const hidden = bundle?.figures.report.hidden ?? [];
  return (
    <>
      {bundle && figures && (
        <Verdict
          document={document}
          figures={bundle.figures}
          shown={figures}
          settled={planning.quality === "settled" && !planning.glance}
          standing={planning.standing}
          where={where}
          onMove={setSlide}
          onRaise={raise}
        />
      )}
      <Suggest document={document} onSuggest={suggest} />
      <LinesByHand
        hand={hand}
        planning={planning}
        sections={sections}
        canTake={planning.quality === "settled" && bundle !== null}
        onSuggest={() => edit((plan) => ({ ...plan, parting: { ...plan.parting, layout: null } }))}
      />
      {bundle && figures && (
        <Part title={messages.sheet.linesAndFills}>
          <Figure label={messages.sheet.partingLine}>{show.length(figures.report.partingLengthMm)}</Figure>
          <Figure label={messages.sheet.fill}>
            {messages.sheet.fillIs(
              show.volume(sections.reduce((sum, { fillMm3 }) => sum + fillMm3, 0)),
              show.mass(figures.takeoff.fillG),
            )}
          </Figure>
          <FillList
            parts={bundle.figures.report.fillParts}
            where={where}
            costsMinor={bundle.figures.takeoff.fillsMinor}
            choices={document.parting.fills}
          />
          {thickestMm > 0 && <FillShown shown={fillShown} thickestMm={thickestMm} onShow={setFillShown} />}
          {zoneMm && zoneMm.keepClear > 0 && (
            <Caution>{messages.sheet.lineThroughKeepClear(show.length(zoneMm.keepClear))}</Caution>
          )}
          {zoneMm && zoneMm.fragile > 0 && (
            <Caution>{messages.sheet.lineThroughFragile(show.length(zoneMm.fragile))}</Caution>
          )}
          {hidden.length > 0 && <OutOfSight hidden={hidden} onMove={(change) => void hand.make(change)} />}
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
