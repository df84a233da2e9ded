/** A thread that reads the documents of one crawl, one after the other. */
import { parentPort, workerData } from 'node:worker_threads';
import { documentReader } from './reading';
import type { Document, Reading, ReaderSetup } from './reading';
import type { ThreadAnswer } from './readers';

const read = documentReader(workerData as ReaderSetup);

/** The memory of a reading that is given away instead of copied. */
const given = ({ links, source }: Reading) =>
  [links.packed, ...(source ? [source.data] : [])].map(({ buffer }) => buffer as ArrayBuffer);

parentPort!.on('message', (document: Document) => {
  let answer: ThreadAnswer;
  try {
    answer = { reading: read(document) };
  } catch (error) {
    answer = { fault: `${document.turn.address}: ${(error as Error).stack ?? String(error)}` };
  }
  parentPort!.postMessage(answer, 'reading' in answer ? given(answer.reading) : []);
});
