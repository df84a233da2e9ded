/** What runs in the threads that parse what one crawl receives. */
import type { MessagePort } from 'node:worker_threads';
import { workerData } from 'piscina';
import { parseRobots } from '$core/robots';
import type { RobotsFile } from '$core/robots';
import { documentParser } from './parse';
import type { Document, ParsedDocument, ParserSetup } from './parse';
import { sitemapParser } from './sitemapParser';
import { give } from './transfer';

let parser: ((document: Document) => ParsedDocument) | undefined;

export function parse(document: Document): ParsedDocument {
  parser ??= documentParser(workerData as ParserSetup);
  const parsed = parser(document);
  return give(parsed, [parsed.links.packed, ...(parsed.source ? [parsed.source.data] : [])]);
}

export const robots = ({ text }: { text: string }): RobotsFile => parseRobots(text);

/** Parses a sitemap that comes through a port piece by piece, and answers each with what it holds; null ends it. */
export function sitemap({ port }: { port: MessagePort }): Promise<void> {
  const read = sitemapParser();
  return new Promise((resolve) => {
    port.on('message', (message: { piece: string | null } | null) => {
      if (message) return port.postMessage(read(message.piece));
      port.close();
      resolve();
    });
  });
}
