import { Router } from "express";
import { UniqueConstraintError } from "sequelize";
import { type StoredStore, store, storedStore } from "../../../contract/store.ts";
import { EMPTY_STORE } from "../../../core/materials/stock.ts";
import { StoreRow } from "../../db/models.ts";
import { actingMember } from "../../middleware/member.ts";
import { Problem } from "../../problem.ts";

/** The workshop's store: read whole and written whole, on the revision it was read at. */
export function storeRoutes(): Router {
  const router = Router();

  router.get("/", async (request, response) => {
    response.json(await readStore(actingMember(request).workshopId));
  });

  router.put("/", async (request, response) => {
    const { workshopId } = actingMember(request);
    const { revision, store: document } = storedStore.parse(request.body);
    if (!(await written(workshopId, revision, document))) {
      throw new Problem(
        "conflict",
        "Someone else changed the store since you opened it. Nothing of yours was written; look at theirs, and change it again.",
        { body: { current: await readStore(workshopId) } },
      );
    }
    response.json({ store: document, revision: revision + 1 } satisfies StoredStore);
  });

  return router;
}

async function readStore(workshopId: string): Promise<StoredStore> {
  const row = await StoreRow.findByPk(workshopId);
  if (!row) return { store: EMPTY_STORE, revision: 0 };
  const document: unknown = typeof row.document === "string" ? JSON.parse(row.document) : row.document;
  return { store: store.parse(document), revision: row.revision };
}

/** @returns whether it was written; it is not where the store stands at another revision */
async function written(workshopId: string, revision: number, document: object): Promise<boolean> {
  const next = { revision: revision + 1, document };
  if (revision > 0) {
    const [changed] = await StoreRow.update(next, { where: { workshopId, revision } });
    return changed > 0;
  }
  try {
    await StoreRow.create({ workshopId, ...next });
    return true;
  } catch (error) {
    // Two who open an empty store at once: the first one's is kept.
    if (error instanceof UniqueConstraintError) return false;
    throw error;
  }
}
