/** The results that are kept have a limit: those used least lately go first, with their bytes. */
import { Op } from "sequelize";
import { Blob, Result } from "../../db/models.ts";
import { dropUnused } from "../blobs.ts";

/** All results of a workshop together may take so much room, bytes before packing. */
export const RESULTS_LIMIT_BYTES = 2 * 1024 ** 3;

/** @returns how many results were let go of */
export async function evictResults(workshopId: string, mostBytes: number): Promise<number> {
  const results = await Result.findAll({ where: { workshopId }, order: [["usedAt", "DESC"]] });
  const blobs = await Blob.findAll({
    where: { id: { [Op.in]: results.map(({ blobId }) => blobId) } },
    attributes: ["id", "bytes"],
  });
  const bytesOf = new Map(blobs.map(({ id, bytes }) => [id, Number(bytes)]));
  let kept = 0;
  const gone = results.filter(({ blobId }, k) => {
    kept += bytesOf.get(blobId) ?? 0;
    // The one just left is kept, however large.
    return k > 0 && kept > mostBytes;
  });
  for (const result of gone) {
    await result.destroy();
    await dropUnused(result.blobId);
  }
  return gone.length;
}
