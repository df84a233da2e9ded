/** What runs in a thread of its own: parsing the documents of one crawl, and analysing a crawl. */
import { move, transferableSymbol, valueSymbol, workerData } from 'piscina';
import { analyseParts } from './analysisParts';
import type { AnalysisTask } from './analysisParts';
import { documentParser } from './parse';
import type { Document, ParsedDocument, ParserSetup } from './parse';
import type { ParserThreadData } from './parserPool';

/** Gives a value away with the memory that it holds, instead of copying it. */
const give = <T extends object>(value: T, buffers: ArrayBuffer[]) =>
  move({ [transferableSymbol]: buffers, [valueSymbol]: value } as never) as unknown as T;

let parser: ((document: Document) => ParsedDocument) | undefined;

/** Parses a document. Its slot tells when that began, so that its time can be bounded from outside. */
export function parse({ document, slot }: { document: Document; slot: number }): ParsedDocument {
  const { setup, began } = workerData as ParserThreadData;
  parser ??= documentParser(setup satisfies ParserSetup);
  Atomics.store(began, slot, Math.round(performance.timeOrigin + performance.now()) | 0);
  const parsed = parser(document);
  const buffers = [parsed.links.packed, ...(parsed.source ? [parsed.source.data] : [])];
  return give(
    parsed,
    buffers.map(({ buffer }) => buffer as ArrayBuffer),
  );
}

/** Analyses a crawl. */
export function analyse(task: AnalysisTask) {
  const parts = analyseParts(task);
  const buffers = new Set([...parts.values()].map(({ buffer }) => buffer as ArrayBuffer));
  return give(parts, [...buffers]);
}
