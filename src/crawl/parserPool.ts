/** The threads that parse what websites send, with bounds of time and memory for each document. */
import { availableParallelism } from 'node:os';
import { once } from 'node:events';
import { MessageChannel } from 'node:worker_threads';
import pLimit from 'p-limit';
import { Piscina } from 'piscina';
import type { UnreadableReason } from '$core/facts';
import { parseRobots } from '$core/robots';
import type { RobotsFile } from '$core/robots';
import { documentParser } from './parse';
import type { Document, ParsedDocument, ParserSetup } from './parse';
import { sitemapParser } from './sitemapParser';
import type { SitemapBatch } from './sitemapParser';
import { isBuilt, parserThread } from '$server/threads';
import { ownBytes } from './transfer';

/** What was parsed, or why it could not be. */
export type ParseOutcome<T> = { ok: true; parsed: T } | { ok: false; reason: UnreadableReason };

/** A sitemap that is parsed as it comes. */
export interface SitemapReading {
  /** @param piece null at the end of the file */
  read: (piece: string | null) => Promise<ParseOutcome<SitemapBatch>>;
  /** To be called whenever no more is to be read. */
  close: () => void;
}

/** Sitemaps that are read at once at most. */
export const SITEMAPS_AT_ONCE = 4;

/** All of these throw only when the signal of the crawl is aborted. */
export interface ParserPool {
  parse: (document: Document) => Promise<ParseOutcome<ParsedDocument>>;
  parseRobots: (text: string) => Promise<ParseOutcome<RobotsFile>>;
  openSitemap: () => SitemapReading;
  close: () => Promise<void>;
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
  file: parserThread,
};

const FAULT = { ok: false, reason: 'fault' } as const;

async function tryInPlace<T>(work: () => T): Promise<ParseOutcome<T>> {
  try {
    return { ok: true, parsed: await Promise.resolve().then(work) };
  } catch {
    return FAULT;
  }
}

/** Parses in place, for tests that run from the sources: nothing bounds time and memory there. */
function parseInPlace(setup: ParserSetup): ParserPool {
  const parse = documentParser(setup);
  return {
    parse: (document) => tryInPlace(() => parse(document)),
    parseRobots: (text) => tryInPlace(() => parseRobots(text)),
    openSitemap: () => {
      const read = sitemapParser();
      return { read: (piece) => tryInPlace(() => read(piece)), close: () => {} };
    },
    close: () => Promise.resolve(),
  };
}

const isOutOfMemory = (error: unknown) => (error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY';

/**
 * Starts the threads that parse the documents of one crawl, one document each. A thread that takes too long or too much
 * memory is ended: its document is unreadable, the next one gets a new thread, and nothing else is lost.
 * @param signal ends all parsing at once
 */
export function startParsers(setup: ParserSetup, signal: AbortSignal, given: Partial<ParserOptions> = {}): ParserPool {
  const { timeout, memory, threads, file } = { ...defaults, ...given };
  if (threads < 1 || !isBuilt(file)) return parseInPlace(setup);
  const poolOf = (minThreads: number, maxThreads: number) => {
    const pool = new Piscina({
      filename: file,
      // Without the name of a function a thread looks for one in vain as it starts, and reads its program twice.
      name: 'parse',
      minThreads,
      maxThreads,
      idleTimeout: 60_000,
      resourceLimits: { maxOldGenerationSizeMb: memory },
      recordTiming: false,
      workerData: setup,
    });
    // A thread that was ended because of its time may run out of memory first: then nobody waits for it any more.
    return pool.on('error', () => {});
  };
  const documents = poolOf(1, threads);
  // A document is given to the pool when a thread is free for it, so that its time does not count while it waits.
  const inTurn = pLimit(threads);
  // A sitemap is parsed as slowly as it comes; pages do not wait for it.
  let sitemaps: Piscina | undefined;

  /** Begins to count the time of a thread's work, and ends the thread when that is up or the crawl is stopped. */
  function bounds() {
    const stop = new AbortController();
    const giveUp = () => stop.abort();
    signal.addEventListener('abort', giveUp);
    let ran = 0;
    let begun = 0;
    let timer: NodeJS.Timeout | undefined;
    let isTooLong = false;
    let isOver = false;
    return {
      signal: stop.signal,
      begin() {
        // Where the crawl was stopped, a sitemap may be read on that is over: nobody would take the time back.
        if (isOver) return;
        begun = performance.now();
        timer = setTimeout(() => {
          isTooLong = true;
          stop.abort();
        }, timeout - ran);
      },
      pause() {
        clearTimeout(timer);
        ran += performance.now() - begun;
      },
      end() {
        isOver = true;
        clearTimeout(timer);
        signal.removeEventListener('abort', giveUp);
      },
      reasonOf: (error: unknown): UnreadableReason => (isTooLong ? 'time' : isOutOfMemory(error) ? 'memory' : 'fault'),
    };
  }

  /** What comes of a thread's work within its bounds. @throws when the crawl is stopped */
  async function outcomeOf<T>(
    work: Promise<T>,
    { end, reasonOf }: ReturnType<typeof bounds>,
  ): Promise<ParseOutcome<T>> {
    try {
      return { ok: true, parsed: await work };
    } catch (error) {
      signal.throwIfAborted();
      return { ok: false, reason: reasonOf(error) };
    } finally {
      end();
    }
  }

  const run = <T>(name: string, task: object) =>
    inTurn(() => {
      signal.throwIfAborted();
      const bound = bounds();
      bound.begin();
      return outcomeOf(documents.run(task, { name, signal: bound.signal }) as Promise<T>, bound);
    });

  function startSitemap() {
    signal.throwIfAborted();
    sitemaps ??= poolOf(0, SITEMAPS_AT_ONCE);
    const { port1: port, port2 } = new MessageChannel();
    const bound = bounds();
    const options = { name: 'sitemap', signal: bound.signal, transferList: [port2] };
    const whole = outcomeOf(sitemaps.run({ port: port2 }, options) as Promise<void>, bound);
    // Whoever reads is told; nobody may be reading.
    whole.catch(() => {});
    return { port, whole, bound };
  }

  function openSitemap(): SitemapReading {
    /** Started with the first piece: most addresses where a sitemap may be hold none. */
    let started: ReturnType<typeof startSitemap> | undefined;
    return {
      read: async (piece) => {
        started ??= startSitemap();
        const { port, whole, bound } = started;
        const answer = once(port, 'message').then(([batch]) => ({ ok: true as const, parsed: batch as SitemapBatch }));
        bound.begin();
        port.postMessage({ piece });
        const outcome = await Promise.race([answer, whole]);
        bound.pause();
        // The thread ends by itself only when it was told to.
        return outcome.ok ? answer : outcome;
      },
      close: () => {
        if (!started) return;
        const { port, whole } = started;
        port.postMessage(null);
        void whole.finally(() => port.close()).catch(() => {});
      },
    };
  }

  return {
    parse: (document) => run('parse', { ...document, body: ownBytes(document.body) }),
    parseRobots: (text) => run('robots', { text }),
    openSitemap,
    close: async () => void (await Promise.all([documents.destroy(), sitemaps?.destroy()])),
  };
}
