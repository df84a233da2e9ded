/* eslint-disable @typescript-eslint/no-require-imports -- what --require loads */
/** Loaded before a program: tells at its end how much processor time its main thread took, and all threads, in ms. */
const { isMainThread } = require('node:worker_threads');
const { readFileSync, writeSync } = require('node:fs');

/** A tick of the processor's clock, in ms (proc(5)). */
const TICK = 10;
if (isMainThread)
  process.on('exit', () => {
    const stat = readFileSync(`/proc/self/task/${process.pid}/stat`, 'utf8').replace(/^.*\) /, '');
    const [user, system] = stat.split(' ').slice(11, 13).map(Number);
    const all = process.cpuUsage();
    writeSync(2, `CPU ${(user + system) * TICK} ${Math.round((all.user + all.system) / 1000)}\n`);
  });
