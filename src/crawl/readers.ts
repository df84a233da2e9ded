/** Who reads the documents of a crawl: threads beside the one that fetches and stores, in the end as many as there are cores. */
import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import { documentReader } from './reading';
import type { Document, Reading, ReaderSetup } from './reading';

/** What a thread answers to a document, in the order of asking. */
export type ThreadAnswer = { reading: Reading } | { fault: string };

export interface Readers {
  /** @throws Error when a thread has come to an end that it should not come to */
  read: (document: Document) => Promise<Reading>;
  close: () => Promise<void>;
}

const MAX_THREADS = 3;
/** A thread has to warm up first: another one pays after so many documents. */
const DOCUMENTS_EACH = 1000;
/** There when the program has been built; from its sources, as in most tests, documents are read in place. */
const threadFile = join(dirname(fileURLToPath(import.meta.url)), 'readerThread.cjs');

/** Bytes that can be given away: a view of memory that others use is copied first. */
const ownBytes = (bytes: Uint8Array) => (bytes.byteLength === bytes.buffer.byteLength ? bytes : Uint8Array.from(bytes));

interface Waiting {
  resolve: (reading: Reading) => void;
  reject: (error: Error) => void;
}

function openThread(setup: ReaderSetup, file: string) {
  const thread = new Worker(file, { workerData: setup });
  const waiting: Waiting[] = [];
  let ended: Error | null = null;
  const end = (error: Error) => {
    ended ??= error;
    for (const { reject } of waiting.splice(0)) reject(ended);
  };
  thread.on('message', (answer: ThreadAnswer) => {
    const { resolve, reject } = waiting.shift()!;
    if ('reading' in answer) resolve(answer.reading);
    else reject(new Error(answer.fault));
  });
  thread.on('error', end);
  thread.on('exit', (code) => end(new Error(`The thread that reads documents ended with code ${code}.`)));
  return {
    busy: () => waiting.length,
    read: (document: Document) =>
      new Promise<Reading>((resolve, reject) => {
        if (ended) return reject(ended);
        const body = ownBytes(document.body);
        waiting.push({ resolve, reject });
        thread.postMessage({ ...document, body } satisfies Document, [body.buffer as ArrayBuffer]);
      }),
    close: () => thread.terminate(),
  };
}

/** @param threads how many at most; with none, documents are read in place */
export function openReaders(
  setup: ReaderSetup,
  threads = Math.min(MAX_THREADS, availableParallelism()),
  file = threadFile,
): Readers {
  if (threads < 1 || !existsSync(file)) {
    const read = documentReader(setup);
    return { read: (document) => Promise.resolve(document).then(read), close: () => Promise.resolve() };
  }
  const pool = [openThread(setup, file)];
  let documents = 0;
  return {
    read: (document) => {
      if (pool.length < threads && ++documents > pool.length * DOCUMENTS_EACH) pool.push(openThread(setup, file));
      return pool.reduce((least, thread) => (thread.busy() < least.busy() ? thread : least)).read(document);
    },
    close: async () => void (await Promise.all(pool.map(({ close }) => close()))),
  };
}
