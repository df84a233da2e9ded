/** The private database of `./edgemap`, for a command that runs below it. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import { createInterface } from 'node:readline';

/**
 * Has `./edgemap` start its private database, unless DATABASE_URL names another one.
 * @returns lets the database go again: it is stopped when nobody else uses it
 */
export async function holdDatabase(env: NodeJS.ProcessEnv = process.env): Promise<() => Promise<void>> {
  const { DATABASE_URL, EDGEMAP_ROOT } = env;
  if (DATABASE_URL || !EDGEMAP_ROOT) return async () => {};
  // In a session of its own: Ctrl-C must not stop the database before the command has ended.
  const holder = spawn(join(EDGEMAP_ROOT, 'edgemap'), ['database'], {
    detached: true,
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  const ended = once(holder, 'close');
  for await (const line of createInterface(holder.stdout)) {
    const [, name, value] = /^(\w+)=(.*)$/.exec(line) ?? [];
    if (name) env[name] = value;
    else break;
  }
  // It has said why.
  if (!env.DATABASE_URL) process.exit(1);
  return async () => {
    holder.stdin.end();
    await ended;
  };
}
