import { createServer } from 'node:http';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';

/** What stands at a path: HTML, a full answer, or a function that answers by hand. */
export type StandInPage =
  | string
  | { status?: number; headers?: Record<string, string>; body?: string | Buffer }
  | ((request: IncomingMessage, response: ServerResponse) => void);

export interface StandIn {
  origin: string;
  /** Paths in the order in which they were asked for. */
  asked: string[];
  close: () => Promise<void>;
}

/** A website on loopback for one test; unknown paths answer 404. */
export async function standIn(
  pages: Record<string, StandInPage> | ((path: string) => StandInPage | undefined),
): Promise<StandIn> {
  const asked: string[] = [];
  const pageAt = typeof pages === 'function' ? pages : (path: string) => pages[path];
  const server = createServer((request, response) => {
    const path = request.url ?? '/';
    asked.push(path);
    const page = pageAt(path);
    if (typeof page === 'function') return page(request, response);
    const {
      status = 200,
      headers = {},
      body = '',
    } = page === undefined ? { status: 404 } : typeof page === 'string' ? { body: page } : page;
    response.writeHead(status, { 'content-type': 'text/html; charset=utf-8', ...headers }).end(body);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    asked,
    close: () => {
      server.closeAllConnections();
      return new Promise((resolve) => server.close(() => resolve()));
    },
  };
}

/** A document of links, with the title first. */
export const linking = (title: string, ...hrefs: string[]) =>
  `<title>${title}</title><h1>${title}</h1>${hrefs.map((href) => `<p><a href="${href}">to ${href}</a></p>`).join('\n')}`;
