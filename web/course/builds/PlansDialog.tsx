import { type ReactNode, useContext, useState } from "react";
import { Link } from "react-router";
import type { Piece } from "../../../contract/pieces.ts";
import { differences } from "../../../core/plan/document/differences.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { goneOnFrom } from "../../../core/plan/document/identity.ts";
import type { PlanFigures } from "../../../core/plan/results/figures.ts";
import { usePlan } from "../../document/planStore.ts";
import { moment } from "../../lib/dates.ts";
import { SettingsContext, useShow } from "../../lib/show.ts";
import type { Planning } from "../../planning/usePlanning.ts";
import { Dialog } from "../../ui/Dialog.tsx";
import { tallyLines } from "./tallyLines.ts";
import { useBuilds, useReadBuild, useReadRevision, useRevisions } from "./useBuilds.ts";

/** An earlier plan that was fetched, to be compared with the open one. */
interface Earlier {
  readonly name: string;
  readonly document: PlanDocument;
  /** Of a build; revisions keep no figures. */
  readonly figures: PlanFigures | null;
  /** The mark its money had on that day. */
  readonly currency: string;
}

/** Earlier plans: what was built from, and the latest revisions; each can be compared with the open plan, or gone on from. */
export function PlansDialog({
  piece,
  document,
  planning,
  onClose,
}: {
  piece: Piece;
  document: PlanDocument;
  planning: Planning;
  onClose: () => void;
}) {
  const builds = useBuilds(piece);
  const revisions = useRevisions(piece);
  const readRevision = useReadRevision(piece);
  const edit = usePlan((plan) => plan.edit);
  const [earlier, setEarlier] = useState<Earlier | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const readBuild = useReadBuild(piece);
  const fetchBuild = async (id: string): Promise<Earlier> => {
    const { name, document: kept, figures, rates } = await readBuild(id);
    return { name, document: kept, figures, currency: rates.currency };
  };
  const fetchRevision = async (revision: number): Promise<Earlier> => ({
    name: `Revision ${revision}`,
    document: await readRevision(revision),
    figures: null,
    currency: "",
  });
  const guarded = (fetched: Promise<Earlier>, then: (found: Earlier) => void) => {
    setProblem(null);
    fetched.then(then, (error: Error) => setProblem(error.message));
  };
  const goOn = (found: Earlier) => {
    edit((plan) => ({ ...found.document, identity: goneOnFrom(found.document.identity, plan.identity) }));
    onClose();
  };
  const row = (key: string, name: ReactNode, when: string, who: string, fetched: () => Promise<Earlier>) => (
    <tr key={key} className="border-t border-base-300">
      <td className="py-1 pr-3">{name}</td>
      <td className="quiet py-1 pr-3 whitespace-nowrap">{moment(when)}</td>
      <td className="quiet py-1 pr-3">{who}</td>
      <td className="py-1 text-right whitespace-nowrap">
        <button type="button" className="btn btn-xs" onClick={() => guarded(fetched(), setEarlier)}>
          Compare
        </button>{" "}
        <button type="button" className="btn btn-xs" onClick={() => guarded(fetched(), goOn)}>
          Go on from it
        </button>
      </td>
    </tr>
  );
  return (
    <Dialog title="Earlier plans" wide onClose={onClose}>
      {problem && (
        <p role="alert" className="mt-2 text-sm text-error">
          {problem}
        </p>
      )}
      {earlier && <Comparison earlier={earlier} document={document} figures={planning.bundle?.figures ?? null} />}
      <h3 className="mt-4 font-semibold">Built from</h3>
      {builds.data?.length === 0 && <p className="quiet text-sm">Nothing has been built from this plan yet.</p>}
      <table className="w-full text-sm" data-testid="builds">
        <tbody>
          {builds.data?.map(({ id, name, madeAt, madeBy }) =>
            row(
              id,
              <Link to={`/pieces/${piece.id}/builds/${id}`} className="link">
                {name}
              </Link>,
              madeAt,
              madeBy?.name ?? "",
              () => fetchBuild(id),
            ),
          )}
        </tbody>
      </table>
      <h3 className="mt-4 font-semibold">Revisions</h3>
      <table className="w-full text-sm" data-testid="revisions">
        <tbody>
          {revisions.data?.map(({ revision, savedAt, savedBy }) =>
            row(String(revision), `Revision ${revision}`, savedAt, savedBy?.name ?? "", () => fetchRevision(revision)),
          )}
        </tbody>
      </table>
    </Dialog>
  );
}

/** What differs between an earlier plan and the open one: in words, and in the tally where both have figures. */
export function Comparison({
  earlier,
  document,
  figures,
}: {
  earlier: Earlier;
  document: PlanDocument;
  figures: PlanFigures | null;
}) {
  const show = useShow();
  const told = differences(earlier.document, document, show);
  const { rates } = useContext(SettingsContext);
  return (
    <section className="mt-3 rounded border border-base-300 p-3 text-sm" data-testid="comparison">
      <h3 className="font-semibold">{`This plan against “${earlier.name}”`}</h3>
      {told.length === 0 && <p className="quiet">They are built alike.</p>}
      <ul className="list-disc pl-5">
        {told.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
      {earlier.figures && figures && (
        <table className="mt-2 w-full">
          <thead>
            <tr className="quiet text-left text-xs">
              <th className="font-normal" />
              <th className="text-right font-normal">{earlier.name}</th>
              <th className="text-right font-normal">This plan</th>
            </tr>
          </thead>
          <tbody>
            {tallyLines(figures, rates.currency, show).map(([name, now], k) => {
              const then = earlier.figures ? tallyLines(earlier.figures, earlier.currency, show)[k][1] : "";
              return (
                <tr key={name} className="border-t border-base-300">
                  <td className="py-0.5">{name}</td>
                  <td className="py-0.5 text-right">{then}</td>
                  <td className={`py-0.5 text-right ${then === now ? "" : "font-semibold"}`}>{now}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </section>
  );
}
