/** The worker behind the robots bench: everything that takes longer than a frame happens here. */
import { effectParts, judgingParts, robotsBench, robotsEffect } from '$core/robotsEffect';
import { loadedOnce } from '$core/promises';
import { addressAt, decodeSnapshot, readPartStream } from '$core/snapshot';
import type { Snapshot, SnapshotParts } from '$core/snapshot';
import { answerQuestions } from '../worker';
import type { BenchAnswer, BenchQuestion, BenchStart } from './bench';

const MOST = 200;

let begun: (() => Promise<{ given: BenchStart; snapshot: Snapshot }>) | null = null;
let bench: ReturnType<typeof robotsBench> | null = null;
const parts: SnapshotParts = new Map();
let readLinks: (() => Promise<unknown>) | null = null;

/** When the crawl was analysed whose parts have been read: all are of one analysis. */
let analysed = '';

async function readInto(base: string, names: readonly string[]): Promise<SnapshotParts> {
  const response = await fetch(`${base}/parts?names=${names.join(',')}&analysed=${analysed}`);
  if (!response.ok) throw new Error(`${response.status}`);
  const read = readPartStream(new Uint8Array(await response.arrayBuffer()));
  for (const [name, bytes] of read) parts.set(name, bytes);
  return read;
}

async function begin(given: BenchStart) {
  const read = await readInto(given.base, judgingParts);
  const stored = JSON.parse(new TextDecoder().decode(read.get('stored'))) as { names: string[]; analysed: string };
  analysed = stored.analysed;
  const snapshot = decodeSnapshot(parts, stored.names);
  return { given, snapshot };
}

async function answerTo(question: BenchQuestion): Promise<BenchAnswer> {
  if (question.ask === 'begin') {
    begun = loadedOnce(() => begin(question.given));
    await begun();
    return { to: 'begin' };
  }
  const { given, snapshot } = await begun!();
  if (question.ask !== 'effect') bench ??= robotsBench(snapshot, given.origin, given.before);
  switch (question.ask) {
    case 'judge':
      return { to: 'judge', judged: bench!.judge(question.text, question.token) };
    case 'decided':
      return { to: 'decided', ...bench!.decidedBy(question.text, question.token, question.line) };
    case 'compose':
      return { to: 'compose', choices: bench!.compose(question.picked) };
    case 'effect': {
      readLinks ??= loadedOnce(() => readInto(given.base, effectParts));
      await readLinks();
      const change = { origin: given.origin, text: question.text, token: question.token };
      const { counts, routesLost } = robotsEffect(snapshot, change, given.settings);
      return { to: 'effect', counts, routesLost: routesLost.slice(0, MOST).map((page) => addressAt(snapshot, page)) };
    }
  }
}

answerQuestions(answerTo);
