import { createServer } from 'node:http';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { pathToFileURL } from 'node:url';
import { join } from 'node:path';
import { OperatorError, prepareDatabase } from '$server/index';
import { UsageError } from './options';
import { onOrphaned } from './orphaned';

const loopback = /^(127(\.\d+){3}|localhost|\[?::1\]?)$/;

/** The name a request was made to, without its port. */
const hostOf = (request: IncomingMessage) => (request.headers.host ?? '').replace(/:\d+$/, '');

/**
 * `edgemap-cli serve`: the built web application on HOST and PORT. There are no accounts yet, so it listens on loopback
 * only and answers to loopback names only, which keeps other sites in the same browser out.
 */
export async function serve(): Promise<number> {
  // A log on a full disk must not end the application.
  process.stderr.on('error', () => {});
  const host = process.env.HOST ?? '127.0.0.1';
  const port = Number(process.env.PORT ?? 0);
  if (!loopback.test(host))
    throw new UsageError(
      `Edge Map has no accounts yet and listens on loopback only; ${host} is not a loopback address.`,
    );
  await prepareDatabase();
  // SvelteKit compares the Origin of a form with the address it was asked at, and has to be told how that begins.
  process.env.PROTOCOL_HEADER = 'x-edgemap-protocol';
  const built = pathToFileURL(join(process.env.EDGEMAP_ROOT ?? process.cwd(), 'build', 'handler.js')).href;
  const { handler } = (await import(/* @vite-ignore */ built)) as {
    handler: (request: IncomingMessage, response: ServerResponse) => void;
  };
  const server = createServer((request, response) => {
    if (!loopback.test(hostOf(request))) {
      response.writeHead(421, { 'content-type': 'text/plain' }).end('Edge Map answers on loopback addresses only.\n');
      return;
    }
    request.headers['x-edgemap-protocol'] = 'http';
    handler(request, response);
  });
  return new Promise((resolve, reject) => {
    server.on('error', (error: NodeJS.ErrnoException) =>
      reject(
        error.code === 'EADDRINUSE'
          ? new OperatorError(
              `Port ${port} is taken. Choose another with PORT=…, or leave PORT out to have one chosen.`,
            )
          : error,
      ),
    );
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.on(signal, () => {
        server.close(() => process.exit(0));
        // Event streams stay open as long as a browser shows them.
        server.closeAllConnections();
      });
    onOrphaned(() => process.kill(process.pid, 'SIGTERM'));
    server.listen(port, host, () => {
      const address = server.address();
      if (address && typeof address === 'object') console.error(`listening on http://${host}:${address.port}/`);
    });
    server.on('close', () => resolve(0));
  });
}
