/** A MariaDB of a test's own, to be killed and started again. */
import { execFileSync, spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import mysql from 'mysql2/promise';

const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });

export async function ownMariadb() {
  const folder = mkdtempSync(join(tmpdir(), 'edgemap-mariadb-'));
  const user = `--user=${userInfo().username}`;
  const data = `--datadir=${join(folder, 'db')}`;
  execFileSync(
    'mariadb-install-db',
    ['--no-defaults', user, data, '--auth-root-authentication-method=normal', '--skip-test-db'],
    { stdio: 'ignore' },
  );
  const port = await freePort();
  const url = `mysql://root@127.0.0.1:${port}/edgemap`;
  let child: ChildProcess;
  const start = async () => {
    child = spawn(
      'mariadbd',
      [
        '--no-defaults',
        user,
        data,
        `--port=${port}`,
        '--bind-address=127.0.0.1',
        `--socket=${join(folder, 's')}`,
        '--skip-grant-tables',
        '--skip-networking=0',
        '--max-allowed-packet=64M',
      ],
      { stdio: 'ignore' },
    );
    for (;;) {
      try {
        await (await mysql.createConnection(url.replace('/edgemap', '/'))).end();
        return;
      } catch {
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
    }
  };
  const stop = (signal: 'SIGTERM' | 'SIGKILL') => {
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill(signal);
    return ended;
  };
  await start();
  return {
    url,
    restart: async (signal: 'SIGTERM' | 'SIGKILL') => {
      await stop(signal);
      await start();
    },
    remove: async () => {
      await stop('SIGKILL');
      rmSync(folder, { recursive: true });
    },
  };
}
