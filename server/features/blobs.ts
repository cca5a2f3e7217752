/**
 * Content-addressed blobs in the database: chunks of one mebibyte, each deflated, so that one dump holds everything.
 * A blob is written in one transaction: it is there whole or not at all.
 */
import { createHash, randomUUID } from "node:crypto";
import { promisify } from "node:util";
import { deflate, inflate, type ZlibOptions } from "node:zlib";
import type { Sequelize, Transaction } from "sequelize";
import { Blob, BlobChunk } from "../db/models.ts";
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

/**
 * Streams a body in. The same content twice is kept once.
 * @param then runs in the same transaction, with the blob
 * @throws Problem `too-large` past the limit, `bad-request` when empty or cut off
 */
export async function storeBlob<T>(
  sequelize: Sequelize,
  workshopId: string,
  body: AsyncIterable<Buffer>,
  limitBytes: number,
  then: (blob: StoredBlob, transaction: Transaction) => Promise<T>,
): Promise<T> {
  return sequelize.transaction(async (transaction) => {
    const id = randomUUID();
    await Blob.create({ id, workshopId, sha256: `pending-${id}`, bytes: 0, chunks: 0 }, { transaction });
    const { sha256, bytes, chunks } = await writeChunks(id, workshopId, body, limitBytes, transaction);
    if (bytes === 0) throw new Problem("bad-request", "The file is empty.");
    const known = await Blob.findOne({ where: { workshopId, sha256 }, transaction });
    if (known) {
      await Blob.destroy({ where: { id }, transaction });
      return then({ id: known.id, sha256, bytes }, transaction);
    }
    await Blob.update({ sha256, bytes, chunks }, { where: { id }, transaction });
    return then({ id, sha256, bytes }, transaction);
  });
}

async function writeChunks(
  blobId: string,
  workshopId: string,
  body: AsyncIterable<Buffer>,
  limitBytes: number,
  transaction: Transaction,
) {
  const hash = createHash("sha256");
  const chunk = Buffer.allocUnsafe(CHUNK_BYTES);
  let held = 0;
  let bytes = 0;
  let chunks = 0;
  const flush = async () => {
    if (held === 0) return;
    await BlobChunk.create(
      { blobId, workshopId, seq: chunks++, data: await pack(chunk.subarray(0, held), PACKING) },
      { transaction },
    );
    held = 0;
  };
  for await (const part of body) {
    hash.update(part);
    bytes += part.length;
    if (bytes > limitBytes) {
      throw new Problem(
        "too-large",
        `The file is larger than ${Math.round(limitBytes / 1024 / 1024)} MB, the most this server takes. Thin the scan out and try again.`,
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

/** The blob's content, chunk by chunk. */
export async function* readBlob(blobId: string): AsyncGenerator<Buffer> {
  for (let seq = 0; ; seq++) {
    const chunk = await BlobChunk.findOne({ where: { blobId, seq } });
    if (!chunk) return;
    yield await unpack(chunk.data);
  }
}
