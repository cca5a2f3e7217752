/** What of the plan must not touch: each met by its remedy, or taken as it is with a reason. */
import { useState } from "react";
import { entryOf } from "../../../core/materials/catalogue.ts";
import { CAUTIONS, type CautionId, DEFERENCE } from "../../../core/materials/cautions.ts";
import { HAZARDS } from "../../../core/materials/entries/hazards.ts";
import { inWords, MEETINGS, type Touching } from "../../../core/materials/touching/index.ts";
import { layupsInUse, type TouchingChoice } from "../../../core/plan/document/document.ts";
import { shellSystem } from "../../../core/shell/index.ts";
import { touchingOf } from "../../../core/takeoff/contacts.ts";
import { usePlan } from "../../document/planStore.ts";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";

const t = messages.touching;

export function TouchingTable({ document, planning }: StationProps) {
  const edit = usePlan((plan) => plan.edit);
  const found = touchingOf(document);
  const { answers } = document.touching;
  const answer = (rule: string, choice: TouchingChoice | null) =>
    edit((plan) => {
      const others = plan.touching.answers.filter((each) => each.rule !== rule);
      return { ...plan, touching: { answers: choice ? [...others, choice] : others } };
    });
  const open = found.filter(({ rule }) => !answers.some((each) => each.rule === rule.id)).length;
  return (
    <section aria-label={t.title}>
      <header className="pb-2">
        <h2 className="text-xl font-semibold">
          {t.title} <span className="quiet text-sm font-normal">{t.open(open)}</span>
        </h2>
      </header>
      <ul>
        {found.map((touching) => (
          <Row
            key={`${touching.rule.id} ${touching.at}`}
            touching={touching}
            choice={answers.find(({ rule }) => rule === touching.rule.id) ?? null}
            onAnswer={(choice) => answer(touching.rule.id, choice)}
          />
        ))}
      </ul>
      {found.length === 0 ? (
        <p className="quiet">{t.none}</p>
      ) : (
        <p className="quiet text-xs">{t.source(found[0].rule.source)}</p>
      )}
      <Safety document={document} planning={planning} />
    </section>
  );
}

interface RowProps {
  readonly touching: Touching;
  readonly choice: TouchingChoice | null;
  readonly onAnswer: (choice: TouchingChoice | null) => void;
}

function Row({ touching: { rule, at, between }, choice, onAnswer }: RowProps) {
  const [reason, setReason] = useState("");
  const { id, what, why, remedy, takes, test } = rule;
  return (
    <li className={`border-l-4 px-4 py-2 ${choice ? "border-success" : "border-warning"} mb-2 bg-base-200`}>
      <p>
        <span className="font-medium">{t.pair(inWords(between))}</span>{" "}
        <span className="quiet text-sm">{MEETINGS[at]}</span>
      </p>
      <p>{what}</p>
      <p className="quiet text-sm">{why}</p>
      <p className="mt-1 text-sm">
        <b>{t.remedy}</b> {remedy} {takes && takes.gPerM2 > 0 && t.takes(entryOf(takes.material).name)}
      </p>
      {test && <p className="text-sm">{t.patch}</p>}
      {choice ? (
        <p className="mt-1 flex items-center gap-3 text-sm">
          {choice.how === "met" ? t.isMet : t.isAccepted(choice.reason)}
          <button type="button" className="btn btn-xs" onClick={() => onAnswer(null)}>
            {t.undo}
          </button>
        </p>
      ) : (
        <p className="mt-2 flex flex-wrap items-center gap-2">
          <button
            type="button"
            className="btn btn-xs btn-neutral"
            onClick={() => onAnswer({ rule: id, how: "met", reason: "" })}
          >
            {takes && takes.gPerM2 > 0 ? t.meetAndBuy : t.meet}
          </button>
          <input
            className="input input-xs w-56"
            placeholder={t.reason}
            aria-label={t.reasonFor(what)}
            maxLength={200}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
          <button
            type="button"
            className="btn btn-xs"
            disabled={reason.trim() === ""}
            onClick={() => onAnswer({ rule: id, how: "accepted", reason: reason.trim() })}
          >
            {t.accept}
          </button>
        </p>
      )}
    </li>
  );
}

/** What to wear, by material: of those that the plan takes. */
function Safety({ document, planning }: Pick<StationProps, "document" | "planning">) {
  const materials = planning.bundle?.figures.takeoff.materials ?? [];
  const ids = [...new Set(materials.map(({ material }) => material))];
  const risky = ids.map((id) => entryOf(id, document.materials.own)).filter(({ hazards }) => hazards.length > 0);
  const more = new Set<CautionId>([
    "thickener-dust",
    ...layupsInUse(document).flatMap(({ system }) => shellSystem(system).cautions),
  ]);
  return (
    <>
      <h2 className="mt-6 mb-1 text-lg font-semibold">{t.safety}</h2>
      <table className="table table-sm">
        <tbody>
          {risky.map(({ name, hazards }) => (
            <tr key={name}>
              <td className="align-top font-medium">{name}</td>
              <td>
                {hazards.map((hazard) => (
                  <p key={hazard}>
                    <b>{HAZARDS[hazard].name}.</b> {HAZARDS[hazard].protect}
                  </p>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <ul className="mt-2 list-disc pl-5 text-sm">
        {[...more].map((id) => (
          <li key={id}>{CAUTIONS[id]}</li>
        ))}
      </ul>
      <p className="quiet mt-2 text-sm">{DEFERENCE}</p>
    </>
  );
}
