/** The threads that parse what websites send, with bounds of time and memory for each document. */
import { availableParallelism } from 'node:os';
import { once } from 'node:events';
import { MessageChannel } from 'node:worker_threads';
import type { Transferable } from 'node:worker_threads';
import pLimit from 'p-limit';
import { Piscina } from 'piscina';
import type { UnreadableReason } from '$core/facts';
import { parseRobots } from '$core/robots';
import type { RobotsFile } from '$core/robots';
import { documentParser } from './parse';
import type { Document, ParsedDocument, ParserSetup } from './parse';
import { sitemapParser } from './sitemapParser';
import type { SitemapBatch } from './sitemapParser';
import { isBuilt, parserThread } from './threads';
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

/** All of these throw only when the signal of the crawl is aborted. */
export interface ParserPool {
  parse: (document: Document) => Promise<ParseOutcome<ParsedDocument>>;
  parseRobots: (text: string) => Promise<ParseOutcome<RobotsFile>>;
  openSitemap: () => SitemapReading;
  close: () => Promise<void>;
}

/** What every thread of a pool is given. */
export interface ParserThreadData {
  setup: ParserSetup;
  /**
   * By slot the low 32 bits of the time at which parsing began, in milliseconds, as if it had not paused since; 0 while
   * nothing is parsed.
   */
  began: Int32Array<SharedArrayBuffer>;
  /** By slot the number of the thread that parses. */
  threads: Int32Array<SharedArrayBuffer>;
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

/** Documents that a thread has at once: the next one is there when it is done with one, however busy the main thread is. */
const DOCUMENTS_EACH = 2;
/** How often a document is given to a thread that ends because of the one before: no site has so many in a row by chance. */
const MAX_TRIES = 20;
/** Documents under way at once, at most: more than a crawl has connections. */
const SLOTS = 512;
/**
 * How many pages one thread parses before there may be more: until then another costs more to start and to warm up than it
 * saves.
 */
const PAGES_OF_FIRST = 200;
/** Milliseconds for which a page waits before there may be more threads all the same: the one before it may have no end. */
const MAX_WAIT = 2000;

const FAULT = { ok: false, reason: 'fault' } as const;

/** UTF-16 units of a robots.txt that no thread needs to parse: pages wait for it, and a thread takes a while to start. */
const MAX_ROBOTS_IN_PLACE = 4096;

async function tryInPlace<T>(work: () => T): Promise<ParseOutcome<T>> {
  try {
    return { ok: true, parsed: await Promise.resolve().then(work) };
  } catch {
    return FAULT;
  }
}

/** What has been started for one crawl, for whoever works on it: its signal ends all waiting at once. */
export type StartedParsers = (signal: AbortSignal) => ParserPool;

/** Parses in place, for tests that run from the sources: nothing bounds time and memory there. */
function parseInPlace(setup: ParserSetup): StartedParsers {
  const parse = documentParser(setup);
  return () => ({
    parse: (document) => tryInPlace(() => parse(document)),
    parseRobots: (text) => tryInPlace(() => parseRobots(text)),
    openSitemap: () => {
      const read = sitemapParser();
      return { read: (piece) => tryInPlace(() => read(piece)), close: () => {} };
    },
    close: () => Promise.resolve(),
  });
}

const isOutOfMemory = (error: unknown) => (error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY';

/**
 * Starts the threads that parse the documents of one crawl. A thread that takes too long or too much memory is ended and
 * replaced; its document is unreadable, and nothing else is lost. As long as nothing is asked of them, they keep no program
 * from ending.
 */
export function startParsers(setup: ParserSetup, given: Partial<ParserOptions> = {}): StartedParsers {
  const { timeout, memory, threads, file } = { ...defaults, ...given };
  if (threads < 1 || !isBuilt(file)) return parseInPlace(setup);
  const numbers = () => new Int32Array(new SharedArrayBuffer(SLOTS * Int32Array.BYTES_PER_ELEMENT));
  const shared: ParserThreadData = { setup, began: numbers(), threads: numbers() };
  const free = Array.from({ length: SLOTS }, (_, slot) => slot);
  const poolOf = (minThreads: number, maxThreads: number, concurrentTasksPerWorker: number) =>
    new Piscina({
      filename: file,
      // Without the name of a function a thread looks for one in vain as it starts, and reads its program twice.
      name: 'parse',
      minThreads,
      maxThreads,
      concurrentTasksPerWorker,
      idleTimeout: 60_000,
      resourceLimits: { maxOldGenerationSizeMb: memory },
      recordTiming: false,
      workerData: shared,
    });
  const pages = poolOf(1, threads, DOCUMENTS_EACH);
  // What waits is begun in the order in which it came: whatever finds a thread of the pool free passes what waits there.
  const inTurn = pLimit(DOCUMENTS_EACH);
  let asked = 0;
  const addThreads = () => void (inTurn.concurrency = threads * DOCUMENTS_EACH);
  // A sitemap is parsed as slowly as it comes; pages do not wait for it.
  let sitemaps: Piscina | undefined;

  /** Threads that were ended because a document took too long. */
  const ended = new Set<number>();

  /** Calls back once a document has been parsed for too long; it may have waited for a thread before. */
  function watch(slot: number, onTimeout: () => void): () => void {
    let timer: NodeJS.Timeout;
    const look = () => {
      const start = Atomics.load(shared.began, slot);
      const ran = start === 0 ? 0 : ((Date.now() | 0) - start) | 0;
      if (start !== 0 && ran >= timeout) onTimeout();
      else timer = setTimeout(look, Math.max(50, timeout - ran));
    };
    timer = setTimeout(look, timeout);
    return () => clearTimeout(timer);
  }

  /** The pool is not given the signal: of tasks that have one, it hands a thread no more than one at once. */
  const untilAborted = <T>(work: Promise<T>, signal: AbortSignal) =>
    new Promise<T>((resolve, reject) => {
      const giveUp = () => reject(signal.reason as Error);
      signal.addEventListener('abort', giveUp);
      void work.then(resolve, reject).finally(() => signal.removeEventListener('abort', giveUp));
    });

  /**
   * Runs a function of a thread within the bounds.
   * @returns null when the thread ended because of another document
   */
  async function attempt<T>(
    pool: Piscina,
    name: string,
    task: object,
    signal: AbortSignal,
    transferList: Transferable[] = [],
  ): Promise<ParseOutcome<T> | null> {
    signal.throwIfAborted();
    const slot = free.pop();
    if (slot === undefined) throw new Error('More documents are under way than a crawl has connections.');
    Atomics.store(shared.began, slot, 0);
    let isTooLong = false;
    const unwatch = watch(slot, () => {
      isTooLong = true;
      const thread = Atomics.load(shared.threads, slot);
      ended.add(thread);
      void pool.threads.find(({ threadId }) => threadId === thread)?.terminate();
    });
    try {
      const run = pool.run({ ...task, slot }, { name, transferList: transferList as never }) as Promise<T>;
      return { ok: true, parsed: await untilAborted(run, signal) };
    } catch (error) {
      signal.throwIfAborted();
      if (isTooLong) return { ok: false, reason: 'time' };
      const wasBegun = Atomics.load(shared.began, slot) !== 0;
      // A document may begin while its thread is being ended.
      if (!wasBegun || ended.has(Atomics.load(shared.threads, slot))) return null;
      return { ok: false, reason: isOutOfMemory(error) ? 'memory' : 'fault' };
    } finally {
      unwatch();
      free.push(slot);
    }
  }

  async function withTries<T>(name: string, task: object, signal: AbortSignal): Promise<ParseOutcome<T>> {
    for (let tries = 0; tries < MAX_TRIES; tries++) {
      const outcome = await attempt<T>(pages, name, task, signal);
      if (outcome) return outcome;
    }
    return FAULT;
  }

  function startSitemap(signal: AbortSignal) {
    sitemaps ??= poolOf(0, 1, 1);
    const { port1: port, port2 } = new MessageChannel();
    const whole = attempt<void>(sitemaps, 'sitemap', { port: port2 }, signal, [port2]).then(
      (outcome) => outcome ?? FAULT,
    );
    // Whoever reads is told; nobody may be reading.
    whole.catch(() => {});
    return { port, whole };
  }

  function openSitemap(signal: AbortSignal): SitemapReading {
    /** Started with the first piece: most addresses where a sitemap may be hold none. */
    let started: ReturnType<typeof startSitemap> | undefined;
    return {
      read: async (piece) => {
        started ??= startSitemap(signal);
        const { port, whole } = started;
        const answer = once(port, 'message').then(([batch]) => ({ ok: true as const, parsed: batch as SitemapBatch }));
        port.postMessage({ piece });
        const outcome = await Promise.race([answer, whole]);
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

  return (signal) => ({
    parse: (document) => {
      if (++asked === PAGES_OF_FIRST) addThreads();
      const waiting = setTimeout(addThreads, MAX_WAIT);
      const body = ownBytes(document.body);
      return inTurn(() => {
        clearTimeout(waiting);
        return withTries('parse', { document: { ...document, body } }, signal);
      });
    },
    parseRobots: (text) =>
      text.length <= MAX_ROBOTS_IN_PLACE
        ? tryInPlace(() => parseRobots(text))
        : inTurn(() => withTries('robots', { text }, signal)),
    openSitemap: () => openSitemap(signal),
    close: async () => void (await Promise.all([pages.destroy(), sitemaps?.destroy()])),
  });
}
