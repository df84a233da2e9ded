/** What runs in the thread that reads an upload. */
import { workerData } from 'node:worker_threads';
import { ask, inThread } from '../threads';
import { previewUpload, readUpload } from './upload';
import type { Bytes } from './upload';
import type { Asked, ThreadTask } from './uploadThread';

const asking = <T>(asked: Asked) => ask<T>(asked);

/** The bytes of the upload, which come a piece at a time. */
async function* pieces(): Bytes {
  for (let piece; (piece = await asking<Uint8Array | null>({ next: true }));) yield piece;
}

const { isPreview, ...task } = workerData as ThreadTask;
void inThread<unknown>(() =>
  isPreview
    ? previewUpload(task, pieces())
    : readUpload(task, pieces(), {
        onProgress: (progress) => asking({ progress }),
        onRejects: (rejects) => asking({ rejects }),
        onAddresses: (addresses) => asking({ addresses }),
      }),
);
