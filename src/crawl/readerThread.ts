/** A thread that reads the documents of one crawl, one after the other. */
import { parentPort, workerData } from 'node:worker_threads';
import { documentReader } from './reading';
import type { Document, ReaderSetup } from './reading';
import type { ThreadAnswer } from './readers';

const read = documentReader(workerData as ReaderSetup);

/** Memory that may be given away whole. */
const ownBuffers = (...all: (Uint8Array | undefined)[]) =>
  all.flatMap((bytes) => (bytes && bytes.byteLength === bytes.buffer.byteLength ? [bytes.buffer as ArrayBuffer] : []));

parentPort!.on('message', (document: Document) => {
  let answer: ThreadAnswer;
  let given: ArrayBuffer[] = [];
  try {
    const reading = read(document);
    given = ownBuffers(reading.links.packed, reading.source?.data);
    answer = { reading };
  } catch (error) {
    answer = { fault: `${document.turn.address}: ${(error as Error).stack ?? String(error)}` };
  }
  parentPort!.postMessage(answer, given);
});
