import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';

export interface Running {
  child: ChildProcess;
  stop: () => Promise<void>;
}

/** Starts a built part of the program as its own process. */
export function program(words: string[], env: Record<string, string>): Running {
  const child = spawn(process.execPath, ['build-node/main.cjs', ...words], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  return {
    child,
    stop: () => {
      child.kill('SIGTERM');
      return ended;
    },
  };
}

/** Starts the web application on a free port. @returns its address, once it listens */
export async function startApp(databaseUrl: string): Promise<Running & { address: string }> {
  const running = program(['serve'], { DATABASE_URL: databaseUrl, PORT: '0' });
  const address = await new Promise<string>((resolve, reject) => {
    let said = '';
    running.child.stderr!.on('data', (piece) => {
      said += piece;
      const found = /listening on (\S+)/.exec(said);
      if (found) resolve(found[1]);
    });
    running.child.once('exit', () => reject(new Error(`The app ended: ${said}`)));
  });
  return { ...running, address };
}
