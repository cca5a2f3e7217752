import type { StoredPlan } from "../../contract/pieces.ts";
import { timeOfDay } from "../lib/dates.ts";
import { Dialog } from "../ui/Dialog.tsx";

export function ConflictDialog({
  theirs,
  keepMine,
  takeTheirs,
}: {
  theirs: StoredPlan;
  keepMine: () => void;
  takeTheirs: () => void;
}) {
  const when = timeOfDay(theirs.updatedAt);
  return (
    <Dialog title="This plan was changed in another window" role="alertdialog">
      <p className="mt-2">
        {theirs.updatedBy?.name ?? "Somebody"} saved another version at {when}. Both are kept in the plan's revisions;
        choose which to go on with.
      </p>
      <div className="modal-action">
        <button type="button" className="btn" onClick={takeTheirs}>
          Go on with theirs
        </button>
        <button type="button" className="btn btn-primary" onClick={keepMine}>
          Go on with mine
        </button>
      </div>
    </Dialog>
  );
}
