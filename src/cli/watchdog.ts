import { Worker } from 'node:worker_threads';
import { isBuilt, watchdogThread } from '$server/threads';

const BEAT_MS = 1000;
const SILENT_SECONDS = 30;

export interface Watched {
  /** Counts up for as long as the process does its work. */
  beats: Int32Array;
  /** After so many of silence it is ended. */
  seconds: number;
  name: string;
}

/**
 * Ends this process when its event loop has stood still for half a minute, if another one supervises it
 * (EDGEMAP_SUPERVISED), which starts it again: of a process that hangs nobody else learns.
 */
export function endWhenStuck(name: string, env: NodeJS.ProcessEnv = process.env): void {
  if (!env.EDGEMAP_SUPERVISED || !isBuilt(watchdogThread)) return;
  const beats = new Int32Array(new SharedArrayBuffer(4));
  const watched: Watched = { beats, seconds: SILENT_SECONDS, name };
  const thread = new Worker(watchdogThread, { workerData: watched, resourceLimits: { maxOldGenerationSizeMb: 16 } });
  // Without it the process goes on as well, unwatched.
  thread.on('error', () => {});
  thread.unref();
  setInterval(() => Atomics.add(beats, 0, 1), BEAT_MS).unref();
}
