/**
 * Snapshots that are open for questions, with everything that was made of them, bounded by the bytes that they hold.
 */
import { totalmem } from 'node:os';
import { isError } from '$core/errors';
import { describeFindings } from '$core/findings';
import type { Found } from '$core/findings';
import { loadedOnce } from '$core/promises';
import { findingsAt } from '$core/report';
import type { PageFindings, Report } from '$core/report';
import {
  decodeSnapshot,
  FINDINGS_PART,
  groupOfPart,
  layerBytes,
  once,
  REPORT_PART,
  SNAPSHOT_VERSION,
} from '$core/snapshot';
import type { PartGroup, Snapshot, SnapshotParts } from '$core/snapshot';
import type { Database } from '../database';
import { importsOfCrawl, sourcesOfCrawl } from '../imports/imports';
import { listBytes } from '../lists/cache';
import { keyPagesOf } from '../sites/keyPages';
import { openTexts } from '../texts/texts';
import { newestAnalysis, partNames, readParts } from './parts';
import type { Analysed } from './parts';
import { viewOf } from '$core/view';
import type { Texts, View } from '$core/view';

const namesIn = (stored: readonly string[], group: PartGroup) => stored.filter((name) => groupOfPart(name) === group);

/** Imports and key pages count for a crawl without another analysis. */
const keyOf = async (db: Database, { id, analysedAt }: Analysed) =>
  [
    `${id}@${analysedAt?.getTime()}`,
    ...(await importsOfCrawl(db, id)).map((one) => one.id),
    'key',
    ...(await keyPagesOf(db, id)).map((one) => one.id),
  ].join();

/** A report with the texts of its findings. */
export type OpenReport = Omit<Report, 'findings'> & { findings: Found[] };

/** A snapshot that is open: what has been read of it, all of one analysis, and how large that is. */
interface Open {
  snapshot: Promise<View | null>;
  /** Reads the links, or the words of pages; done when they are there. */
  with: Record<Exclude<PartGroup, 'facts'>, () => Promise<void>>;
  /** Null when it has none, or one of another version. */
  report: () => OpenReport | null;
  /** The findings of each page. */
  pageFindings: () => PageFindings;
  /** Bytes of everything that is held for it. */
  bytes: () => number;
}

/** What else is kept with a snapshot, such as its comparison to another, by its name, and how many bytes that takes. */
const beside = new WeakMap<View, Map<string, () => number>>();
export const keepBeside = (snapshot: View, name: string, bytes: () => number): void =>
  void beside.set(snapshot, (beside.get(snapshot) ?? new Map<string, () => number>()).set(name, bytes));
const bytesBeside = (snapshot: View) =>
  [...(beside.get(snapshot)?.values() ?? [])].reduce((sum, bytes) => sum + bytes(), 0);

/** The least recently used first. */
const open = new Map<string, Open>();
/** What this machine, or the container that the program runs in, has of memory. */
const memory = Math.min(totalmem(), process.constrainedMemory() || Infinity);
const MAX_OPEN_BYTES = Math.max(768 * 2 ** 20, memory / 4);
/** What an address of an import takes, roughly, with its columns. */
const BYTES_AN_ADDRESS = 250;

/** Takes away what was used longest ago, until the rest is within bounds; what is asked for now stays. */
function evict(keep: readonly string[]) {
  let total = [...open.values()].reduce((sum, entry) => sum + entry.bytes(), 0);
  for (const [key, entry] of open) {
    if (total <= MAX_OPEN_BYTES) return;
    if (keep.includes(key)) continue;
    open.delete(key);
    total -= entry.bytes();
  }
}

const reportFrom = (bytes: Uint8Array | null | undefined): OpenReport | null => {
  if (!bytes) return null;
  const report = JSON.parse(new TextDecoder().decode(bytes)) as Report;
  return { ...report, findings: describeFindings(report.findings) };
};

/** The index of a crawl's texts, read when it is asked for: they are indexed after the crawl was analysed. */
function textsOf(db: Database, row: Analysed): Texts {
  const texts: Texts = {
    index: null,
    read: async () => {
      texts.index ??= await openTexts(db, row);
    },
  };
  return texts;
}

function openEntry(db: Database, row: Analysed, key: string): Open {
  const parts: SnapshotParts = new Map();
  let read = 0;
  let stored: string[] = [];
  let decoded: View | null = null;
  const add = async (group: PartGroup) => {
    for await (const [name, bytes] of readParts(db, row, namesIn(stored, group))) {
      parts.set(name, bytes);
      read += bytes.length;
    }
  };
  const load = async (): Promise<View | null> => {
    stored = await partNames(db, row);
    if (stored.length === 0) return null;
    await add('facts');
    const snapshot = decodeSnapshot(parts, stored, (bytes) => (read += 2 * bytes));
    const imports = await sourcesOfCrawl(db, row.id);
    read += imports.reduce((sum, { addresses }) => sum + addresses.length * BYTES_AN_ADDRESS, 0);
    const keys = await keyPagesOf(db, row.id);
    return (decoded = viewOf(
      snapshot,
      imports,
      keys.map(({ address }) => address),
      textsOf(db, row),
    ));
  };
  const close = (error: unknown) => {
    open.delete(key);
    throw error;
  };
  return {
    bytes: () =>
      read +
      (decoded
        ? layerBytes(decoded) + listBytes(decoded) + bytesBeside(decoded) + (decoded.texts?.index?.bytes ?? 0)
        : 0),
    snapshot: load().catch(close),
    with: { links: loadedOnce(() => add('links').catch(close)), words: loadedOnce(() => add('words').catch(close)) },
    report: once(() => reportFrom(parts.get(REPORT_PART))),
    pageFindings: () => parts.get(FINDINGS_PART) ?? new Uint8Array(0),
  };
}

/** Attempts to read a crawl that is analysed anew again and again. */
const MOST_TRIES = 3;

/** Reads a crawl as it was analysed last: once more where it has been analysed anew meanwhile; null without a crawl. */
async function asAnalysedLast<T>(db: Database, row: Analysed, read: (row: Analysed) => Promise<T>): Promise<T | null> {
  let last: Analysed | undefined = row;
  for (let tries = 1; last; tries++)
    try {
      return await read(last);
    } catch (error) {
      if (!isError(error, 'analysed_anew') || tries === MOST_TRIES) throw error;
      last = await newestAnalysis(db, row.id);
    }
  return null;
}

/**
 * The facts of the pages of a crawl as they were analysed, without links and imports; null when it has none. Not kept
 * open.
 * @throws snapshot_version when they were written by another version of the program
 */
export const readFacts = (db: Database, row: Analysed): Promise<Snapshot | null> =>
  asAnalysedLast(db, row, async (last) => {
    const stored = await partNames(db, last);
    const parts: SnapshotParts = new Map();
    for await (const [name, bytes] of readParts(db, last, namesIn(stored, 'facts'))) parts.set(name, bytes);
    return stored.length === 0 ? null : decodeSnapshot(parts, stored);
  });

/** Opens the snapshot of a crawl, or finds it open. */
async function entryOf(db: Database, row: Analysed, need: PartGroup): Promise<{ key: string; entry: Open }> {
  const key = await keyOf(db, row);
  const entry = open.get(key) ?? openEntry(db, row, key);
  open.delete(key);
  open.set(key, entry);
  if (!(await entry.snapshot)) open.delete(key);
  else if (need !== 'facts') await Promise.all([entry.with.links(), need === 'words' ? entry.with.words() : null]);
  return { key, entry };
}

/**
 * Snapshots that are asked for together, each null when its crawl has none yet: none of them is closed to make room for
 * another. Kept open for the next question, the last the longest.
 * @param need whether their links are asked for, which are most of them, or their links and words, for an analysis;
 *   without them only the facts of pages can be read
 * @throws snapshot_version when one was written by another version of the program
 */
export async function openTogether(db: Database, rows: readonly Analysed[], need: PartGroup): Promise<(View | null)[]> {
  const keys: string[] = [];
  const snapshots: (View | null)[] = [];
  for (const row of rows) {
    const opened = await asAnalysedLast(db, row, (last) => entryOf(db, last, need));
    if (opened) keys.push(opened.key);
    snapshots.push((await opened?.entry.snapshot) ?? null);
    evict(keys);
  }
  return snapshots;
}

/** The snapshot of a crawl, as {@link openTogether} opens it. */
export const openSnapshot = async (db: Database, row: Analysed, need: PartGroup = 'links'): Promise<View | null> =>
  (await openTogether(db, [row], need))[0];

/** The report of a crawl; null when it has none, or one of another version. An open snapshot has its own. */
export async function openReport(db: Database, row: Analysed): Promise<OpenReport | null> {
  const known = open.get(await keyOf(db, row));
  if (known && (await known.snapshot.catch(() => null))) return known.report();
  return asAnalysedLast(db, row, async (last) => {
    const names = await partNames(db, last);
    if (!names.includes(REPORT_PART)) return null;
    const parts = new Map<string, Buffer>();
    for await (const [name, bytes] of readParts(db, last, ['head', REPORT_PART])) parts.set(name, bytes);
    const { version } = JSON.parse(parts.get('head')!.toString()) as { version: number };
    return version === SNAPSHOT_VERSION ? reportFrom(parts.get(REPORT_PART)) : null;
  });
}

/** For each of some pages of a crawl the ids of the findings that are about it. */
export async function findingsOfPages(db: Database, row: Analysed, pages: readonly number[]): Promise<string[][]> {
  const opened = await asAnalysedLast(db, row, (last) => entryOf(db, last, 'facts'));
  const report = opened?.entry.report();
  return pages.map((page) => (opened && report ? findingsAt(opened.entry.pageFindings(), page, report.ids) : []));
}
