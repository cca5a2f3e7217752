/**
 * Content-addressed blobs in the database: chunks of one mebibyte, each deflated, so that one dump holds everything.
 * A body is taken in chunk by chunk, holding no connection while it is waited for; until all of it is there its blob is
 * pending and nothing refers to it, and what is never finished is cleared away.
 */
import { createHash, randomUUID } from "node:crypto";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { promisify } from "node:util";
import { deflate, inflate, type ZlibOptions } from "node:zlib";
import type { Response } from "express";
import { Op, type Sequelize, type Transaction, UniqueConstraintError } from "sequelize";
import { Blob, BlobChunk, BuildRow, Result, ScanRow, SheetRow } from "../db/models.ts";
import { Problem } from "../problem.ts";

const CHUNK_BYTES = 1024 * 1024;
/** Quick rather than small, and a chunk in one go: the page waits for it, and it may share its cores with the page's workers. */
const PACKING: ZlibOptions = { level: 1, memLevel: 9, chunkSize: CHUNK_BYTES };
const pack = promisify(deflate) as (data: Buffer, options: ZlibOptions) => Promise<Buffer>;
const unpack = promisify(inflate) as (data: Buffer) => Promise<Buffer>;

export interface StoredBlob {
  readonly id: string;
  readonly sha256: string;
  readonly bytes: number;
}

/** How large a body may be, and what to do about one that is larger. */
export interface BodyLimit {
  readonly bytes: number;
  readonly advice: string;
}

/**
 * Streams a body in. The same content twice is kept once.
 * @param then runs in the same transaction, with the blob
 * @throws Problem `too-large` past the limit, `bad-request` when empty or cut off
 */
export async function storeBlob<T>(
  sequelize: Sequelize,
  workshopId: string,
  body: AsyncIterable<Buffer>,
  limit: BodyLimit,
  then: (blob: StoredBlob, transaction: Transaction) => Promise<T>,
): Promise<T> {
  const id = randomUUID();
  await Blob.create({ id, workshopId, sha256: `${PENDING}${id}`, bytes: 0, chunks: 0 });
  try {
    const { sha256, bytes, chunks } = await writeChunks(id, workshopId, body, limit);
    if (bytes === 0) throw new Problem("bad-request", "The file is empty.");
    const finish = () =>
      sequelize.transaction(async (transaction) => {
        const known = await Blob.findOne({ where: { workshopId, sha256 }, transaction });
        if (known) {
          await Blob.destroy({ where: { id }, transaction });
          return then({ id: known.id, sha256, bytes }, transaction);
        }
        await Blob.update({ sha256, bytes, chunks }, { where: { id }, transaction });
        return then({ id, sha256, bytes }, transaction);
      });
    // Of two that bring the same at once, one finds the other's there the second time.
    return await finish().catch((error) => {
      if (error instanceof UniqueConstraintError || isDeadlock(error)) return finish();
      throw error;
    });
  } catch (error) {
    await Blob.destroy({ where: { id, sha256: `${PENDING}${id}` } }).catch(() => undefined);
    throw error;
  }
}

const PENDING = "pending-";
/** An upload that was begun so long ago will not be finished any more, ms. */
const ABANDONED_MS = 6 * 3600_000;

function isDeadlock(error: unknown): boolean {
  const { original } = error as { original?: { errno?: number } };
  return original?.errno === 1213 || original?.errno === 1205;
}

/** Clears away uploads that were never finished, as those of a server that was killed. @returns how many */
export async function clearAbandoned(olderThanMs = ABANDONED_MS): Promise<number> {
  const before = new Date(Date.now() - olderThanMs);
  return Blob.destroy({ where: { sha256: { [Op.like]: `${PENDING}%` }, createdAt: { [Op.lte]: before } } });
}

async function writeChunks(blobId: string, workshopId: string, body: AsyncIterable<Buffer>, limit: BodyLimit) {
  const hash = createHash("sha256");
  const chunk = Buffer.allocUnsafe(CHUNK_BYTES);
  let held = 0;
  let bytes = 0;
  let chunks = 0;
  const flush = async () => {
    if (held === 0) return;
    const data = await pack(chunk.subarray(0, held), PACKING);
    await BlobChunk.create({ blobId, workshopId, seq: chunks++, data });
    held = 0;
  };
  for await (const part of body) {
    hash.update(part);
    bytes += part.length;
    if (bytes > limit.bytes) {
      throw new Problem(
        "too-large",
        `The file is larger than ${Math.round(limit.bytes / 1024 / 1024)} MB, the most this server takes. ${limit.advice}`,
      );
    }
    for (let at = 0; at < part.length; ) {
      const taken = part.copy(chunk, held, at, at + CHUNK_BYTES - held);
      at += taken;
      held += taken;
      if (held === CHUNK_BYTES) await flush();
    }
  }
  await flush();
  return { sha256: hash.digest("hex"), bytes, chunks };
}

/** Answers with the blob's content, as fast as it is taken. */
export async function sendBlob(
  response: Response,
  { id, bytes }: Pick<Blob, "id" | "bytes">,
  type = "application/octet-stream",
): Promise<void> {
  response.setHeader("content-type", type);
  response.setHeader("content-length", String(bytes));
  await pipeline(Readable.from(readBlob(id)), response);
}

/** The blob's content, chunk by chunk. */
async function* readBlob(blobId: string): AsyncGenerator<Buffer> {
  for (let seq = 0; ; seq++) {
    const chunk = await BlobChunk.findOne({ where: { blobId, seq } });
    if (!chunk) return;
    yield await unpack(chunk.data);
  }
}

/** Deletes a blob that no scan, result, build or data sheet speaks of any more. */
export async function dropUnused(blobId: string): Promise<void> {
  const where = { blobId };
  const uses = await Promise.all([
    ...[Result.count({ where }), ScanRow.count({ where })],
    ...[BuildRow.count({ where }), SheetRow.count({ where })],
  ]);
  if (uses.every((count) => count === 0)) await Blob.destroy({ where: { id: blobId } });
}
