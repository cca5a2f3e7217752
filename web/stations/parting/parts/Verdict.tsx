import { useMemo } from "react";
import type { PlanDocument } from "../../../../core/plan/document/document.ts";
import type { StandingProof } from "../../../../core/plan/proof/standing.ts";
import type { PlanWarning } from "../../../../core/plan/proof/warning.ts";
import type { PlanFigures } from "../../../../core/plan/results/figures.ts";
import { warningInWords } from "../../../../core/plan/results/warnings.ts";
import { useShow } from "../../../lib/show.ts";
import { Caution, Part } from "../../../ui/fields.tsx";
import { StateIcon } from "../../../ui/StateIcon.tsx";
import { messages } from "../messages.ts";
import { BeforeCoat } from "./BeforeCoat.tsx";
import { CutOffHere } from "./CutOffHere.tsx";
import { TakeApart } from "./TakeApart.tsx";

/** What of a plan's warnings belongs to whether it comes off. */
const OF_COMING_OFF: readonly PlanWarning["kind"][] = ["held", "circle", "lift", "lines"];

/** Whether all of it comes off, what stands in the way, what to do first, and the taking apart to look at. */
export function Verdict({
  document,
  figures,
  shown,
  settled,
  standing,
  where,
  onMove,
  onRaise,
}: {
  document: PlanDocument;
  /** Of the plan as it is worked out. */
  figures: PlanFigures;
  /** Of what is being moved, at a glance; the same where nothing is. */
  shown: PlanFigures;
  settled: boolean;
  /** What is known of lines that were moved before they are settled. */
  standing: StandingProof | null;
  /** A place of the piece in words. */
  where: (at: readonly [number, number, number]) => string;
  onMove: (out: Record<number, number>) => void;
  onRaise: (byMm: number, numbers: readonly number[]) => void;
}) {
  const show = useShow();
  const { order, jacket, fillParts, piece } = figures.report;
  const { sections } = shown.report;
  const held = useMemo(() => sections.filter(({ releases }) => !releases).map(({ number }) => number), [sections]);
  const moved = !settled && standing ? standingInWords(standing, sections, show, where) : null;
  /** The lines do not part the jacket as they were drawn. */
  const astray = figures.warnings.some(({ kind }) => kind === "lines");
  const free = moved ? moved.free : held.length === 0 && order.circle.length === 0 && !astray;
  return (
    <Part title={messages.verdict.willItComeOff}>
      <p className={`font-medium ${free ? "text-success" : "text-warning"}`} data-testid="verdict">
        <StateIcon standing={!free ? "look" : settled ? "set" : "working"} silent />{" "}
        {moved?.text ??
          inWords({ sections: sections.length, held: held.length, circle: order.circle, settled, astray })}
      </p>
      {figures.cutOff && <CutOffHere cutOff={figures.cutOff} where={where} />}
      {figures.warnings
        .filter(({ kind }) => OF_COMING_OFF.includes(kind))
        .map((warning) => warningInWords(warning, piece.boxMm, show))
        .map((text) => (
          <Caution key={text}>{text}</Caution>
        ))}
      <BeforeCoat
        footClayMm3={jacket.footClayMm3}
        footClayMm={document.jacket.footClayMm}
        onBoard={document.seat.onBoard}
        parts={fillParts}
        where={where}
      />
      {sections.length > 0 && <TakeApart order={order} locked={held} onMove={onMove} onRaise={onRaise} />}
    </Part>
  );
}

interface Found {
  readonly sections: number;
  readonly held: number;
  readonly circle: readonly number[];
  readonly settled: boolean;
  readonly astray: boolean;
}

/** What lines that were moved come to before their fills are worked out: the one that is held most is told. */
function standingInWords(
  { sections, circle }: StandingProof,
  numbered: PlanFigures["report"]["sections"],
  show: ReturnType<typeof useShow>,
  where: (at: readonly [number, number, number]) => string,
): { readonly free: boolean; readonly text: string } {
  const numberOf = (origin: number) => numbered.find((section) => section.origin === origin)?.number ?? origin + 1;
  const worst = sections.reduce((most, { biteMm }, s) => (biteMm > sections[most].biteMm ? s : most), 0);
  const { releases, biteMm, biteAt } = sections[worst];
  if (!releases) {
    const text = messages.verdict.standingHeld(numberOf(worst), show.length(biteMm), biteAt ? where(biteAt) : null);
    return { free: false, text };
  }
  if (circle.length > 0)
    return { free: false, text: messages.verdict.circle(circle.map(numberOf).sort().join(" and ")) };
  return { free: true, text: messages.verdict.standing };
}

function inWords({ sections, held, circle, settled, astray }: Found): string {
  if (held > 0) return messages.verdict.held(held, sections);
  if (circle.length > 0) return messages.verdict.circle(circle.join(" and "));
  if (astray) return messages.verdict.astray;
  // A first glance proves nothing.
  if (!settled) return messages.verdict.atFirstGlance;
  return sections === 1 ? messages.verdict.yesInOne : messages.verdict.yes(sections);
}
