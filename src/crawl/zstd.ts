/** Bodies in Zstandard, which Node.js cannot undo beside the program, as it does other codings. */
import pLimit from 'p-limit';
import { isError } from '$core/errors';
import { largestWindow, zstdDecoder } from '$core/zstd';
import { isBuilt, runThread, zstdThread } from '$server/threads';

/** What a decoder may be asked to remember (RFC 9659 §3), or as much as is read. */
const MAX_WINDOW = 8 << 20;
const bounds = { megabytes: 64, quiet: 10_000 };
/** Few servers send it unasked: that takes no more memory than one body does. */
const inTurn = pLimit(1);

/** What a body holds, and whether there was more than the limit. */
interface Undone {
  bytes: Buffer;
  truncated: boolean;
}

export interface ZstdTask {
  bytes: Uint8Array;
  limit: number;
}

const malformed = (message: string, cause?: unknown) =>
  Object.assign(new Error(message, { cause }), { code: 'Z_DATA_ERROR' });

/** Undoes a body as far as the limit. @throws Error Z_DATA_ERROR */
export function unzstdHere({ bytes, limit }: ZstdTask): Undone {
  if (largestWindow(bytes) > Math.max(MAX_WINDOW, limit)) throw malformed('The window of the body is too large.');
  const read = zstdDecoder();
  const pieces: Uint8Array[] = [];
  let size = 0;
  const undone = function* () {
    yield* read(bytes);
    yield* read(null);
  };
  for (const piece of undone()) {
    pieces.push(piece.subarray(0, limit - size));
    size += piece.length;
    if (size > limit) break;
  }
  return { bytes: Buffer.concat(pieces), truncated: size > limit };
}

/** Undoes a body as far as the limit, in a thread that is ended when it takes too much. @throws Error Z_DATA_ERROR */
export async function unzstd(bytes: Uint8Array, limit: number): Promise<Undone> {
  const task: ZstdTask = { bytes, limit };
  if (!isBuilt(zstdThread)) return unzstdHere(task);
  try {
    const { bytes, truncated } = await inTurn(() => runThread<Undone>(zstdThread, task, () => null, bounds));
    return { bytes: Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length), truncated };
  } catch (error) {
    if (isError(error, 'thread_time', 'thread_memory')) throw malformed(error.message, error);
    throw error;
  }
}
