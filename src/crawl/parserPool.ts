/** The threads that parse the documents of a crawl, with bounds of time and memory for each document. */
import { availableParallelism } from 'node:os';
import { Piscina } from 'piscina';
import type { UnreadableReason } from '$core/facts';
import { documentParser } from './parse';
import type { Document, ParsedDocument, ParserSetup } from './parse';
import { hasThreads, ownBytes, threadFile } from './threads';

/** A document that was parsed, or why it could not be. */
export type ParseOutcome = { ok: true; parsed: ParsedDocument } | { ok: false; reason: UnreadableReason };

export interface ParserPool {
  /** @throws Error only when the signal of the crawl is aborted */
  parse: (document: Document) => Promise<ParseOutcome>;
  close: () => Promise<void>;
}

/** What every thread of a pool is given. */
export interface ParserThreadData {
  setup: ParserSetup;
  /** By slot the low 32 bits of the time at which parsing began, in milliseconds; 0 before that. */
  began: Int32Array<SharedArrayBuffer>;
}

export interface ParserOptions {
  /** Milliseconds for one document. */
  timeout: number;
  /** MiB of heap for one thread. */
  memory: number;
  threads: number;
  file: string;
}

const defaults: ParserOptions = {
  timeout: 10_000,
  memory: 512,
  threads: Math.min(3, availableParallelism()),
  file: threadFile,
};

/** Documents under way at once, at most: more than a crawl has connections. */
const SLOTS = 512;

/** Parses in place, for tests that run from the sources: nothing bounds time and memory there. */
function parseInPlace(setup: ParserSetup): ParserPool {
  const parse = documentParser(setup);
  return {
    parse: async (document) => {
      try {
        return { ok: true, parsed: await Promise.resolve(document).then(parse) };
      } catch {
        return { ok: false, reason: 'fault' };
      }
    },
    close: () => Promise.resolve(),
  };
}

const isOutOfMemory = (error: unknown) => (error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY';

/**
 * Opens the threads that parse the documents of one crawl. A thread that takes too long or too much memory is ended and
 * replaced; its document is unreadable, and nothing else is lost.
 * @param signal ends all waiting at once
 */
export function openParsers(setup: ParserSetup, signal: AbortSignal, given: Partial<ParserOptions> = {}): ParserPool {
  const { timeout, memory, threads, file } = { ...defaults, ...given };
  if (threads < 1 || !hasThreads(file)) return parseInPlace(setup);
  const began = new Int32Array(new SharedArrayBuffer(SLOTS * Int32Array.BYTES_PER_ELEMENT));
  const free = Array.from({ length: SLOTS }, (_, slot) => slot);
  const pool = new Piscina({
    filename: file,
    name: 'parse',
    minThreads: 1,
    maxThreads: threads,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: memory },
    recordTiming: false,
    workerData: { setup, began } satisfies ParserThreadData,
  });

  /** Calls back once a document has been parsed for too long; it may have waited for a thread before. */
  function watch(slot: number, onTimeout: () => void): () => void {
    let timer: NodeJS.Timeout;
    const look = () => {
      const start = Atomics.load(began, slot);
      const ran = start === 0 ? 0 : ((Date.now() | 0) - start) | 0;
      if (start !== 0 && ran >= timeout) onTimeout();
      else timer = setTimeout(look, Math.max(50, timeout - ran));
    };
    timer = setTimeout(look, timeout);
    return () => clearTimeout(timer);
  }

  async function parse(document: Document): Promise<ParseOutcome> {
    signal.throwIfAborted();
    const slot = free.pop();
    if (slot === undefined) throw new Error('More documents are under way than a crawl has connections.');
    Atomics.store(began, slot, 0);
    const end = new AbortController();
    const unwatch = watch(slot, () => end.abort());
    const giveUp = () => end.abort();
    signal.addEventListener('abort', giveUp);
    const body = ownBytes(document.body);
    try {
      const task = { document: { ...document, body }, slot };
      const parsed = (await pool.run(task, {
        signal: end.signal,
        transferList: [body.buffer as ArrayBuffer],
      })) as ParsedDocument;
      return { ok: true, parsed };
    } catch (error) {
      signal.throwIfAborted();
      if (end.signal.aborted) return { ok: false, reason: 'time' };
      return { ok: false, reason: isOutOfMemory(error) ? 'memory' : 'fault' };
    } finally {
      unwatch();
      signal.removeEventListener('abort', giveUp);
      free.push(slot);
    }
  }
  return { parse, close: () => pool.destroy() };
}
