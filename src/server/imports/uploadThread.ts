/** Reads an upload in a thread that is ended when it takes too much. */
import { failure, isError } from '$core/errors';
import { importThread, isBuilt, runThread } from '../threads';
import type { Reject } from './imports';
import type { ListPreview } from './readList';
import { previewUpload, readUpload } from './upload';
import type { Bytes, ReadUpload, UploadSink, UploadTask } from './upload';

export type ThreadTask = UploadTask & { isPreview: boolean };

/** What the thread asks for, or tells. */
export type Asked =
  { next: true } | { progress: number } | { rejects: readonly Reject[] } | { addresses: readonly string[] };

const bounds = { megabytes: 2048, quiet: 60_000 };

async function inThread<R>(task: ThreadTask, bytes: Bytes, sink: UploadSink, signal?: AbortSignal): Promise<R> {
  const source = bytes[Symbol.asyncIterator]();
  const answer = async (asked: Asked): Promise<unknown> => {
    if ('next' in asked) {
      const next = await source.next();
      return next.done ? null : next.value;
    }
    if ('progress' in asked) await sink.onProgress(asked.progress);
    else if ('rejects' in asked) await sink.onRejects(asked.rejects);
    else await sink.onAddresses(asked.addresses);
    return null;
  };
  try {
    return await runThread<R>(importThread, task, answer, { ...bounds, signal });
  } catch (error) {
    if (isError(error, 'thread_time')) throw failure('import', 'Reading the file took too long. Nothing was imported.');
    if (isError(error, 'thread_memory'))
      throw failure('import', 'Reading the file took too much memory. Import it in parts. Nothing was imported.');
    throw error;
  } finally {
    await source.return?.();
  }
}

const nothing: UploadSink = { onProgress: () => {}, onRejects: () => {}, onAddresses: () => {} };

/** Reads an upload. @throws import when it cannot be read; whatever ends the stream; the reason of the signal */
export const readBeside = (task: UploadTask, bytes: Bytes, sink: UploadSink, signal?: AbortSignal) =>
  isBuilt(importThread)
    ? inThread<ReadUpload>({ ...task, isPreview: false }, bytes, sink, signal)
    : readUpload(task, bytes, sink);

/** Says how a list would be imported, by its beginning. @throws import */
export const previewBeside = (task: UploadTask, bytes: Bytes) =>
  isBuilt(importThread)
    ? inThread<ListPreview>({ ...task, isPreview: true }, bytes, nothing)
    : previewUpload(task, bytes);
