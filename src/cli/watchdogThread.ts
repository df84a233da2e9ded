/** What runs in the thread that ends its process when that does nothing any more. */
import { writeSync } from 'node:fs';
import { workerData } from 'node:worker_threads';
import type { Watched } from './watchdog';

const LOOK_MS = 1000;
const { beats, seconds, name } = workerData as Watched;
let [last, silent] = [-1, 0];

// Looks are counted, not time: while a machine sleeps, neither thread runs.
setInterval(() => {
  const beat = Atomics.load(beats, 0);
  silent = beat === last ? silent + 1 : 0;
  last = beat;
  if (silent < seconds) return;
  // The stream of standard error is written by the other thread.
  writeSync(2, `The ${name} has done nothing for ${seconds} seconds and is ended.\n`);
  process.kill(process.pid, 'SIGKILL');
}, LOOK_MS);
