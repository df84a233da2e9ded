/** What runs in the threads that parse what one crawl receives. */
import { threadId } from 'node:worker_threads';
import type { MessagePort } from 'node:worker_threads';
import { workerData } from 'piscina';
import { parseRobots } from '$core/robots';
import type { RobotsFile } from '$core/robots';
import { documentParser } from './parse';
import type { Document, ParsedDocument } from './parse';
import type { ParserThreadData } from './parserPool';
import { sitemapParser } from './sitemapParser';
import { give } from './transfer';

const now = () => Math.round(performance.timeOrigin + performance.now());
const { setup, began, threads } = (workerData ?? {}) as ParserThreadData;
/** Parsing has begun, or goes on after it had run for some milliseconds. */
function tellBegin(slot: number, ran = 0): void {
  Atomics.store(threads, slot, threadId);
  Atomics.store(began, slot, (now() - ran) | 0);
}
const tellEnd = (slot: number) => void Atomics.store(began, slot, 0);

let parser: ((document: Document) => ParsedDocument) | undefined;

/** Parses a document. Its slot tells when that began, so that its time can be bounded from outside. */
export function parse({ document, slot }: { document: Document; slot: number }): ParsedDocument {
  parser ??= documentParser(setup);
  tellBegin(slot);
  const parsed = parser(document);
  tellEnd(slot);
  return give(parsed, [parsed.links.packed, ...(parsed.source ? [parsed.source.data] : [])]);
}

/** Parses a robots.txt. */
export function robots({ text, slot }: { text: string; slot: number }): RobotsFile {
  tellBegin(slot);
  const parsed = parseRobots(text);
  tellEnd(slot);
  return parsed;
}

/** Parses a sitemap that comes through a port piece by piece, and answers each with what it holds; null ends it. */
export function sitemap({ port, slot }: { port: MessagePort; slot: number }): Promise<void> {
  const read = sitemapParser();
  let ran = 0;
  return new Promise((resolve) => {
    port.on('message', (message: { piece: string | null } | null) => {
      if (message === null) {
        port.close();
        return resolve();
      }
      const begin = now();
      tellBegin(slot, ran);
      port.postMessage(read(message.piece));
      ran += now() - begin;
      tellEnd(slot);
    });
  });
}
