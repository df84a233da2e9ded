import { createServer } from 'node:http';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { pathToFileURL } from 'node:url';
import { join } from 'node:path';
import { prepareDatabase } from '$server/index';
import { onOrphaned } from './orphaned';
import { endWhenStuck } from './watchdog';
import { failure } from '$core/errors';

const loopback = /^(127(\.\d+){3}|localhost|\[?::1\]?)$/;

/** What every answer says: nothing guesses its type, no other site shows it in a frame or learns its address. */
const safetyHeaders = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
};

function refuse(response: ServerResponse, status: number, text: string): void {
  response.writeHead(status, { 'content-type': 'text/plain; charset=utf-8' }).end(text);
}

/** Bytes of a request: settings of 8 MiB, and the numbers of a million picked rows. */
const MAX_BODY = 16 << 20;

const TOO_LARGE = 'That is more than Edge Map takes in at once. Send less, or in parts; nothing was changed.\n';

/** Whether a request holds too much, or does not say how much it holds. */
function isTooLarge({ method, headers }: IncomingMessage): boolean {
  if (method === 'GET' || method === 'HEAD') return false;
  if (headers['transfer-encoding']) return true;
  return Number(headers['content-length'] ?? 0) > MAX_BODY;
}

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
    throw failure(
      'usage',
      `Edge Map has no accounts yet and listens on loopback only; ${host} is not a loopback address.`,
    );
  await prepareDatabase();
  // SvelteKit compares the Origin of a form with the address it was asked at, and has to be told how that begins.
  process.env.PROTOCOL_HEADER = 'x-edgemap-protocol';
  // Files to import have any size, and are read as they come; all else is bounded below.
  process.env.BODY_SIZE_LIMIT = 'Infinity';
  const built = pathToFileURL(join(process.env.EDGEMAP_ROOT ?? process.cwd(), 'build', 'handler.js')).href;
  const { handler } = (await import(/* @vite-ignore */ built)) as {
    handler: (request: IncomingMessage, response: ServerResponse) => void;
  };
  const server = createServer((request, response) => {
    for (const [name, value] of Object.entries(safetyHeaders)) response.setHeader(name, value);
    if (!loopback.test(hostOf(request))) return refuse(response, 421, 'Edge Map answers on loopback addresses only.\n');
    if (request.headers['sec-fetch-site'] === 'cross-site')
      return refuse(response, 403, 'Another website has asked this of Edge Map. Open the address by hand.\n');
    // Whoever watches Edge Map from outside learns that it answers.
    if (request.url === '/health') return void response.writeHead(200, { 'content-type': 'text/plain' }).end('ok\n');
    const isImport = /^\/sites\/\d+\/imports(\?|$)/.test(request.url ?? '');
    if (!isImport && isTooLarge(request)) {
      // Whoever is still sending reads the answer only after that.
      request.resume();
      return refuse(response, 413, TOO_LARGE);
    }
    request.headers['x-edgemap-protocol'] = 'http';
    handler(request, response);
  });
  return new Promise((resolve, reject) => {
    server.on('error', (error: NodeJS.ErrnoException) =>
      reject(
        error.code === 'EADDRINUSE'
          ? failure(
              'operator',
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
    endWhenStuck('app');
    onOrphaned(() => process.kill(process.pid, 'SIGTERM'));
    server.listen(port, host, () => {
      const address = server.address();
      if (address && typeof address === 'object') console.error(`listening on http://${host}:${address.port}/`);
    });
    server.on('close', () => resolve(0));
  });
}
