/** A process that hangs is ended by the thread that watches it, so that whoever supervises it starts it again. */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const program = join(process.cwd(), 'build-node', 'watchdogThread.cjs');

/** Runs a process that is watched, beats ten times a second, and does something besides. */
async function watched(does: string) {
  const script = `
    const { Worker } = require('node:worker_threads');
    const beats = new Int32Array(new SharedArrayBuffer(4));
    new Worker(${JSON.stringify(program)}, { workerData: { beats, seconds: 2, name: 'tram' } }).unref();
    setInterval(() => Atomics.add(beats, 0, 1), 100).unref();
    ${does}`;
  const child = spawn(process.execPath, ['-e', script]);
  let said = '';
  child.stderr.on('data', (piece) => (said += piece));
  const ending = await new Promise((resolve) => child.on('close', (code, signal) => resolve(code ?? signal)));
  return { ending, said };
}

describe('a process that is watched', () => {
  it('is ended when it does nothing any more, and that is told', async () =>
    expect(await watched('setTimeout(() => { for (;;); }, 200);')).toEqual({
      ending: 'SIGKILL',
      said: 'The tram has done nothing for 2 seconds and is ended.\n',
    }));
  it('is left alone when it waits, however long, or is busy in between', async () =>
    expect(
      await watched(`
        const busy = (ms) => { for (const end = Date.now() + ms; Date.now() < end;); };
        let turns = 0;
        const timer = setInterval(() => { busy(300); if (++turns === 8) clearInterval(timer); }, 500);`),
    ).toEqual({ ending: 0, said: '' }));
});
