import { zodResolver } from "@hookform/resolvers/zod";
import { useContext, useState } from "react";
import { useForm } from "react-hook-form";
import { buildName } from "../../../contract/builds.ts";
import type { Piece } from "../../../contract/pieces.ts";
import { entriesOf } from "../../../core/materials/catalogue.ts";
import { builtAlike } from "../../../core/plan/document/differences.ts";
import type { PlanDocument } from "../../../core/plan/document/document.ts";
import { usePlan } from "../../document/planStore.ts";
import type { SaveState } from "../../document/useAutosave.ts";
import { SettingsContext } from "../../lib/show.ts";
import type { Planning } from "../../planning/usePlanning.ts";
import { Dialog } from "../../ui/Dialog.tsx";
import { StateIcon } from "../../ui/StateIcon.tsx";
import { PlansDialog } from "./PlansDialog.tsx";
import { useBuild, useBuilds, useMakeBuild } from "./useBuilds.ts";

/** Which plan is being built, whether the one that is open is that one, and the way to build from this one. */
export function BuiltFrom({
  piece,
  document,
  planning,
  save,
}: {
  piece: Piece;
  document: PlanDocument;
  planning: Planning;
  save: SaveState;
}) {
  const builds = useBuilds(piece);
  const latest = builds.data?.[0];
  const built = useBuild(piece, latest?.id ?? null);
  const [open, setOpen] = useState<"build" | "plans" | null>(null);
  const same = built.data ? builtAlike(built.data.document, document) : null;
  const ready = planning.quality === "settled" && planning.bundle !== null && save.kind === "saved";
  return (
    <section className="mt-auto border-t border-base-300 px-4 pt-3 text-sm" aria-label="Being built">
      {latest && same !== null && (
        <p className="pb-2" data-testid="built-from">
          {!same ? (
            <>
              <StateIcon standing="look" silent /> <span className="font-medium text-warning">New draft.</span>{" "}
              {`“${latest.name}” is being built.`}
            </>
          ) : (
            <>
              <StateIcon standing="set" silent /> <span className="font-medium text-success">Being built:</span>{" "}
              {latest.name}
            </>
          )}
        </p>
      )}
      {same !== true && (
        <button
          type="button"
          className="btn btn-sm w-full"
          disabled={!ready}
          title={ready ? undefined : "When the plan is settled and saved"}
          onClick={() => setOpen("build")}
        >
          Build from this
        </button>
      )}
      <button type="button" className="btn btn-ghost btn-sm mt-1 w-full font-normal" onClick={() => setOpen("plans")}>
        Earlier plans
      </button>
      {open === "build" && (
        <NameBuild piece={piece} planning={planning} replaces={latest?.name ?? null} onClose={() => setOpen(null)} />
      )}
      {open === "plans" && (
        <PlansDialog piece={piece} document={document} planning={planning} onClose={() => setOpen(null)} />
      )}
    </section>
  );
}

function NameBuild({
  piece,
  planning: { bundle, resultKey },
  replaces,
  onClose,
}: {
  piece: Piece;
  planning: Planning;
  /** What is being built now. */
  replaces: string | null;
  onClose: () => void;
}) {
  const { rates } = useContext(SettingsContext);
  const revision = usePlan((plan) => plan.revision);
  const { register, handleSubmit, setError, formState } = useForm({
    resolver: zodResolver(buildName),
    defaultValues: { name: "" },
  });
  const make = useMakeBuild(piece);
  const refuse = (message: string) => setError("name", { message });
  const submit = handleSubmit(async ({ name }) => {
    const key = await resultKey();
    if (!bundle || !key) {
      refuse("This page cannot name the plan's result. Open it by https, or on the machine itself, to build from it.");
      return;
    }
    const { figures } = bundle;
    const catalogue = entriesOf(figures.takeoff.materials, usePlan.getState().document?.materials.own);
    make.mutate(
      { name, revision, resultKey: key, rates, figures, catalogue },
      { onSuccess: onClose, onError: (error) => refuse(error.message) },
    );
  });
  const problem = formState.errors.name?.message;
  return (
    <Dialog title="Build from this plan" onClose={onClose}>
      <form onSubmit={submit}>
        <p className="mt-2 text-sm">
          The plan is kept as it stands today: its lines, fills, layers, figures and your rates. Whatever you change
          afterwards is a new draft, and this one stays.
          {replaces && ` “${replaces}” stays among the earlier plans.`}
        </p>
        <label className="mt-3 block text-sm">
          <span className="quiet">Name it</span>
          <input
            className="input mt-1 w-full"
            placeholder="For the client, second go"
            autoFocus
            aria-invalid={problem !== undefined}
            {...register("name")}
          />
        </label>
        {problem && (
          <p role="alert" className="mt-2 text-sm text-error">
            {problem}
          </p>
        )}
        <div className="modal-action">
          <button type="submit" className="btn btn-primary" disabled={make.isPending || formState.isSubmitting}>
            Build from this
          </button>
        </div>
      </form>
    </Dialog>
  );
}
