/** What runs in the thread that undoes a body in Zstandard. */
import { workerData } from 'node:worker_threads';
import { inThread } from '$server/threads';
import { unzstdHere } from './zstd';
import type { ZstdTask } from './zstd';

void inThread(async () => unzstdHere(workerData as ZstdTask));
