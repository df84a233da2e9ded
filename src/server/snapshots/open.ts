/**
 * Snapshots that are open for questions, with everything that was made of them, bounded by the bytes that they hold.
 */
import { totalmem } from 'node:os';
import { describeFindings } from '$core/findings';
import type { Found } from '$core/findings';
import { loadedOnce } from '$core/promises';
import { findingsAt } from '$core/report';
import type { PageFindings, Report } from '$core/report';
import { decodeSnapshot, FINDINGS_PART, layerBytes, REPORT_PART, SNAPSHOT_VERSION } from '$core/snapshot';
import type { PartGroup, Snapshot, SnapshotParts } from '$core/snapshot';
import type { Crawl } from '../crawls';
import type { Database } from '../database';
import { importsOfCrawl, sourcesOfCrawl } from '../imports/imports';
import { listBytes } from '../lists/cache';
import { partNames, readGroup, readPart } from './parts';
import { viewOf } from '$core/view';
import type { View } from '$core/view';

/** What identifies the snapshot of a crawl: each analysis stores another in its place. */
export type Analysed = Pick<Crawl, 'id' | 'analysedAt'>;
/** Imports count for a crawl without another analysis. */
const keyOf = async (db: Database, { id, analysedAt }: Analysed) =>
  `${id}@${analysedAt?.getTime()}+${(await importsOfCrawl(db, id)).map((one) => one.id).join()}`;

/** A report with the texts of its findings. */
export type OpenReport = Omit<Report, 'findings'> & { findings: Found[] };

/** A snapshot that is open: what has been read of it, and how large that is. */
interface Open {
  snapshot: Promise<View | null>;
  /** Reads the links; done when they are there. */
  withLinks: () => Promise<void>;
  /** Bytes of everything that is held for it. */
  bytes: () => number;
  report?: Promise<OpenReport | null>;
  pageFindings?: Promise<PageFindings>;
}

/** What else is kept with a snapshot, such as its comparison to another, and how many bytes that takes. */
const beside = new WeakMap<View, () => number>();
export const keepBeside = (snapshot: View, bytes: () => number): void => void beside.set(snapshot, bytes);

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

/** The bytes that are held for all open snapshots. */
export const openBytes = () => [...open.values()].reduce((sum, entry) => sum + entry.bytes(), 0);

function openEntry(db: Database, crawlId: number, key: string): Open {
  const parts: SnapshotParts = new Map();
  let read = 0;
  let stored: string[] = [];
  let decoded: View | null = null;
  const add = async (group: PartGroup) => {
    for await (const [name, bytes] of readGroup(db, crawlId, group, stored)) {
      parts.set(name, bytes);
      read += bytes.length;
    }
  };
  const load = async (): Promise<View | null> => {
    stored = await partNames(db, crawlId);
    if (stored.length === 0) return null;
    await add('facts');
    const snapshot = decodeSnapshot(parts, stored, (bytes) => (read += 2 * bytes));
    const imports = await sourcesOfCrawl(db, crawlId);
    read += imports.reduce((sum, { addresses }) => sum + addresses.length * BYTES_AN_ADDRESS, 0);
    return (decoded = viewOf(snapshot, imports));
  };
  return {
    bytes: () => read + (decoded ? layerBytes(decoded) + listBytes(decoded) + (beside.get(decoded)?.() ?? 0) : 0),
    snapshot: load().catch((error) => {
      open.delete(key);
      throw error;
    }),
    withLinks: loadedOnce(() => add('links')),
  };
}

/**
 * The facts of the pages of a crawl as they were analysed, without links and imports; null when it has none. Not kept
 * open.
 * @throws snapshot_version when they were written by another version of the program
 */
export async function readFacts(db: Database, crawlId: number): Promise<Snapshot | null> {
  const stored = await partNames(db, crawlId);
  const parts: SnapshotParts = new Map();
  for await (const [name, bytes] of readGroup(db, crawlId, 'facts', stored)) parts.set(name, bytes);
  return stored.length === 0 ? null : decodeSnapshot(parts, stored);
}

async function entryOf(db: Database, row: Analysed): Promise<{ key: string; entry: Open }> {
  const key = await keyOf(db, row);
  const entry = open.get(key) ?? openEntry(db, row.id, key);
  open.delete(key);
  open.set(key, entry);
  return { key, entry };
}

/**
 * Snapshots that are asked for together, each null when its crawl has none yet: none of them is closed to make room for
 * another. Kept open for the next question, the last the longest.
 * @param need whether their links are asked for, which are most of them; without them only the facts of pages can be
 *   read
 * @throws snapshot_version when one was written by another version of the program
 */
export async function openTogether(db: Database, rows: readonly Analysed[], need: PartGroup): Promise<(View | null)[]> {
  const keys: string[] = [];
  const snapshots: (View | null)[] = [];
  for (const row of rows) {
    const { key, entry } = await entryOf(db, row);
    const snapshot = await entry.snapshot;
    if (!snapshot) open.delete(key);
    else if (need === 'links') await entry.withLinks();
    keys.push(key);
    snapshots.push(snapshot);
    evict(keys);
  }
  return snapshots;
}

/** The snapshot of a crawl, as {@link openTogether} opens it. */
export const openSnapshot = async (db: Database, row: Analysed, need: PartGroup = 'links'): Promise<View | null> =>
  (await openTogether(db, [row], need))[0];

/** The report of a crawl; null when it has none, or one of another version. */
export async function openReport(db: Database, row: Analysed): Promise<OpenReport | null> {
  const known = open.get(await keyOf(db, row));
  if (known?.report) return known.report;
  const read = readReport(db, row.id);
  if (known) {
    known.report = read.catch((error) => {
      delete known.report;
      throw error;
    });
  }
  return read;
}

async function readReport(db: Database, crawlId: number): Promise<OpenReport | null> {
  const head = await readPart(db, crawlId, 'head');
  if (!head || (JSON.parse(head.toString()) as { version: number }).version !== SNAPSHOT_VERSION) return null;
  const bytes = await readPart(db, crawlId, REPORT_PART);
  if (!bytes) return null;
  const report = JSON.parse(bytes.toString()) as Report;
  return { ...report, findings: describeFindings(report.findings) };
}

/** The ids of the findings that are about a page of an open snapshot. */
export async function findingsOfPage(db: Database, row: Analysed, page: number): Promise<string[]> {
  const { entry } = await entryOf(db, row);
  entry.pageFindings ??= readPart(db, row.id, FINDINGS_PART).then((bytes) => bytes ?? new Uint8Array(0));
  return findingsAt(await entry.pageFindings, page, (await openReport(db, row))?.ids);
}
