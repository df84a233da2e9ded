import { and, asc, eq, getTableColumns, getTableName, gt, sql } from 'drizzle-orm';
import type { RowDataPacket } from 'mysql2';
import { countPackedLinks } from '$core/links';
import { scopeOf } from '$core/scope';
import { findingsAt, reportSteps } from '$core/report';
import type { PageFindings, Report } from '$core/report';
import { settingsSchema } from '$core/settings';
import type { Scope } from '$core/scope';
import {
  snapshotBuilder,
  decodeSnapshot,
  encodeSnapshot,
  FINDINGS_PART,
  groupOfPart,
  nothingFound,
  pageRecord,
  REPORT_PART,
  SNAPSHOT_VERSION,
  SnapshotVersionError,
} from '$core/snapshot';
import type { Check, PageRecord, PartGroup, SiteFiles, Snapshot, SnapshotParts } from '$core/snapshot';
import type { UnvisitedReason } from '$core/verdict';
import { ASIDE_RANK, MAX_HOPS, RESOURCE_RANK, UNLINKED_RANK } from './ranks';
import { boundedMap } from './boundedMap';
import { inRuns, inTransaction } from './database';
import type { Database } from './database';
import { crawl, frontier, page, phrase, robotsFile, sitemapEntry, sitemapFile, snapshotChunk, url } from './schema';

const READ_ROWS = 1000;
const CHUNK_BYTES = 1 << 20;
/** Bytes of packed links that hold their number. */
const PACKED_HEAD = 12;

type CrawlRow = typeof crawl.$inferSelect;

/** Why an address that was never fetched was not. */
function unvisitedReason(
  row: { rank: number; hops: number; cut: boolean; address: string },
  { settings, limited, baseId }: CrawlRow,
  scope: Scope,
): UnvisitedReason {
  if (!scope.keeps(row.address).keeps) return 'scope';
  if (row.rank >= ASIDE_RANK) return baseId === null ? 'kind' : 'selection';
  if (row.cut) return 'trap';
  if (row.hops > MAX_HOPS) return 'hops';
  if (settings.depth !== null && row.rank % UNLINKED_RANK > settings.depth) return 'depth';
  return limited ? 'limit' : 'stopped';
}

/** Everything a crawl knows but links: pages, and what was only asked whether it answers. */
async function readPages(db: Database, row: CrawlRow) {
  const scope = scopeOf(row.settings);
  const pages: PageRecord[] = [];
  const checks = new Map<number, Check>();
  const { links, headers, ...columns } = getTableColumns(page);
  // The number of links stands at the beginning of what is packed.
  const head = sql<Buffer | null>`left(${links}, ${PACKED_HEAD})`;
  let after = 0;
  for (;;) {
    const rows = await db
      .select({
        urlId: frontier.urlId,
        rank: frontier.rank,
        hops: frontier.hops,
        cut: frontier.cut,
        address: url.text,
        page: columns,
        head,
      })
      .from(frontier)
      .innerJoin(url, eq(url.id, frontier.urlId))
      .leftJoin(page, and(eq(page.crawlId, frontier.crawlId), eq(page.urlId, frontier.urlId)))
      .where(and(eq(frontier.crawlId, row.id), gt(frontier.urlId, after)))
      .orderBy(asc(frontier.urlId))
      .limit(READ_ROWS);
    for (const { urlId, page: found, head, ...place } of rows) {
      const { rank, address } = place;
      if (rank >= RESOURCE_RANK && rank < ASIDE_RANK) {
        if (found) checks.set(urlId, { status: found.status, error: found.error });
        continue;
      }
      const unvisited = found ? null : unvisitedReason(place, row, scope);
      const linkCount = head ? countPackedLinks(head) : 0;
      pages.push(pageRecord({ number: urlId, address, unvisited, linkCount }, found ?? nothingFound));
    }
    if (rows.length < READ_ROWS) return { pages, checks };
    after = rows[rows.length - 1].urlId;
  }
}

/** Hands the packed links of all pages over, some at a time. */
async function* readLinks(db: Database, crawlId: number) {
  let after = 0;
  for (;;) {
    const rows = await db
      .select({ urlId: page.urlId, links: page.links })
      .from(page)
      .where(and(eq(page.crawlId, crawlId), gt(page.urlId, after)))
      .orderBy(asc(page.urlId))
      .limit(READ_ROWS);
    yield rows;
    if (rows.length < READ_ROWS) return;
    after = rows[rows.length - 1].urlId;
  }
}

/** Written for the driver itself: a large crawl has a hundred thousand texts. */
async function readTexts(db: Database, table: typeof url | typeof phrase, ids: Iterable<number>) {
  const texts = new Map<number, string>();
  for (const run of inRuns([...ids], READ_ROWS)) {
    const select = 'select id, text from ?? where id in (?)';
    const [rows] = await db.$client.query<RowDataPacket[]>(select, [getTableName(table), run]);
    for (const { id, text } of rows) texts.set(id, text);
  }
  return texts;
}

async function readFiles(db: Database, crawlId: number): Promise<SiteFiles> {
  const robots = await db
    .select({ origin: robotsFile.origin, status: robotsFile.status, fault: robotsFile.fault, body: robotsFile.body })
    .from(robotsFile)
    .where(eq(robotsFile.crawlId, crawlId))
    .orderBy(asc(robotsFile.origin));
  const { entries, passedOver, fault, faultLine } = sitemapFile;
  const sitemaps = await db
    .select({ address: url.text, entries, passedOver, fault, faultLine })
    .from(sitemapFile)
    .innerJoin(url, eq(url.id, sitemapFile.urlId))
    .where(eq(sitemapFile.crawlId, crawlId))
    .orderBy(asc(url.text));
  return { robots, sitemaps };
}

async function buildFromRows(db: Database, row: CrawlRow): Promise<Snapshot> {
  const { pages, checks } = await readPages(db, row);
  const builder = snapshotBuilder(pages);
  const counts = new Map(pages.map(({ number, linkCount }) => [number, linkCount]));
  for await (const rows of readLinks(db, row.id))
    for (const { urlId, links } of rows) if (counts.get(urlId)) builder.addLinks(urlId, links);
  const named = builder.named();
  const entries = await db
    .select({
      number: sitemapEntry.urlId,
      sitemapId: sitemapEntry.sitemapId,
      line: sitemapEntry.line,
      lastmod: sitemapEntry.lastmod,
    })
    .from(sitemapEntry)
    .where(eq(sitemapEntry.crawlId, row.id));
  const sitemaps = await readTexts(db, url, new Set(entries.map(({ sitemapId }) => sitemapId)));
  const settings = settingsSchema.parse(row.settings);
  const steps = builder.steps({
    starts: [row.settings.start, ...row.settings.starts],
    listed: row.settings.lists,
    checks,
    outside: await readTexts(db, url, named.outside),
    phrases: await readTexts(db, phrase, named.phrases),
    listings: entries.map(({ sitemapId, ...entry }) => ({ ...entry, sitemap: sitemaps.get(sitemapId) ?? '' })),
    files: await readFiles(db, row.id),
    reading: settings,
  });
  return drained(steps);
}

/** Goes through steps with pauses, in which the lease of the crawl is renewed. */
async function drained<T>(steps: Generator<undefined, T>): Promise<T> {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    await new Promise((resolve) => setImmediate(resolve));
  }
}

/** Builds the snapshot of a crawl from its rows and stores it in place of an earlier one. */
export const makeSnapshot = async (db: Database, row: CrawlRow): Promise<Snapshot> => (await rebuilt(db, row)).snapshot;

async function rebuilt(db: Database, row: CrawlRow): Promise<{ snapshot: Snapshot; bytes: number }> {
  const snapshot = await buildFromRows(db, row);
  const parts = encodeSnapshot(snapshot);
  const { report, pages } = await drained(reportSteps(snapshot, settingsSchema.parse(row.settings)));
  parts.set(FINDINGS_PART, pages);
  parts.set(REPORT_PART, new TextEncoder().encode(JSON.stringify(report)));
  await inTransaction(db, async (run, send) => {
    await run('delete from snapshot_chunk where crawl_id = ?', [row.id]);
    for (const [part, bytes] of parts)
      for (let seq = 0; seq === 0 || seq * CHUNK_BYTES < bytes.length; seq++) {
        const data = bytes.subarray(seq * CHUNK_BYTES, (seq + 1) * CHUNK_BYTES);
        await send('insert into snapshot_chunk (crawl_id, part, seq, data) values (?, ?, ?, ?)', [
          row.id,
          part,
          seq,
          Buffer.from(data.buffer, data.byteOffset, data.length),
        ]);
      }
  });
  return { snapshot, bytes: [...parts.values()].reduce((sum, { length }) => sum + length, 0) };
}

/** One part of a stored snapshot in its binary form, for a browser that works on it; null when there is none. */
export async function snapshotPart(db: Database, crawlId: number, part: string): Promise<Buffer | null> {
  const chunks = await db
    .select({ data: snapshotChunk.data })
    .from(snapshotChunk)
    .where(and(eq(snapshotChunk.crawlId, crawlId), eq(snapshotChunk.part, part)))
    .orderBy(asc(snapshotChunk.seq));
  return chunks.length ? Buffer.concat(chunks.map(({ data }) => data)) : null;
}

/** Reads the parts of a group one after the other: all of them at once would take their memory twice. */
async function* readParts(db: Database, crawlId: number, group: PartGroup, stored: readonly string[]) {
  for (const name of stored)
    if (groupOfPart(name) === group) yield [name, (await snapshotPart(db, crawlId, name)) ?? Buffer.alloc(0)] as const;
}

/** The names of the parts in which the snapshot of a crawl is stored; none when it has none. */
async function partsOfSnapshot(db: Database, crawlId: number): Promise<string[]> {
  const rows = await db
    .selectDistinct({ part: snapshotChunk.part })
    .from(snapshotChunk)
    .where(eq(snapshotChunk.crawlId, crawlId));
  return rows.map(({ part }) => part);
}

/** Reports, by crawl and its end; small beside snapshots. */
const reports = boundedMap<string, Report>(20);

/** The report of a crawl that has ended; null when it has none. */
export async function openReport(db: Database, row: Pick<CrawlRow, 'id' | 'endedAt'>): Promise<Report | null> {
  // Opening the snapshot draws up what an earlier program has not; only then is what is stored worth keeping.
  if (!(await openSnapshot(db, row, 'facts'))) return null;
  const report = await storedReport(db, row);
  if (report) reports.set(keyOf(row), report);
  return report;
}

/** The report of a crawl if there is one, without drawing it up. */
export async function storedReport(db: Database, row: Pick<CrawlRow, 'id' | 'endedAt'>): Promise<Report | null> {
  const known = reports.get(keyOf(row));
  if (known) return known;
  const bytes = await snapshotPart(db, row.id, REPORT_PART);
  return bytes && (JSON.parse(bytes.toString()) as Report);
}

const pageFindings = boundedMap<string, PageFindings>(4);

/** The ids of the findings that are about a page. */
export async function findingsOfPage(
  db: Database,
  row: Pick<CrawlRow, 'id' | 'endedAt'>,
  page: number,
): Promise<string[]> {
  const key = keyOf(row);
  let found = pageFindings.get(key);
  if (!found) pageFindings.set(key, (found = (await snapshotPart(db, row.id, FINDINGS_PART)) ?? new Uint8Array(0)));
  return findingsAt(found, page);
}

/** A snapshot that is open: what has been read of it, and how large that is. */
interface Open {
  snapshot: Promise<Snapshot | null>;
  bytes: number;
  /** Reads the links; done when they are there. */
  withLinks: () => Promise<void>;
}

/** A crawl that went on has another end, and another snapshot. */
const keyOf = ({ id, endedAt }: Pick<CrawlRow, 'id' | 'endedAt'>) => `${id}@${endedAt?.getTime()}`;

/** Open snapshots, the least recently used first, bounded by the size of what was read. */
const open = new Map<string, Open>();
const MAX_OPEN_BYTES = 512 << 20;

function openEntry(db: Database, crawlId: number, key: string): Open {
  const parts: SnapshotParts = new Map();
  let stored: string[] = [];
  let links: Promise<void> | null = null;
  const add = async (group: PartGroup) => {
    for await (const [name, bytes] of readParts(db, crawlId, group, stored)) {
      parts.set(name, bytes);
      entry.bytes += bytes.length;
    }
    evict(key);
  };
  const load = async (): Promise<Snapshot | null> => {
    stored = await partsOfSnapshot(db, crawlId);
    if (stored.length === 0) return null;
    await add('facts');
    try {
      return decodeSnapshot(parts, stored);
    } catch (error) {
      if (!(error instanceof SnapshotVersionError) || error.version > SNAPSHOT_VERSION) throw error;
    }
    // Written by an earlier program: what it was built from is still there, and what is built is all there.
    const [row] = await db.select().from(crawl).where(eq(crawl.id, crawlId));
    links = Promise.resolve();
    const { snapshot, bytes } = await rebuilt(db, row);
    entry.bytes = bytes;
    evict(key);
    return snapshot;
  };
  const entry: Open = {
    bytes: 0,
    snapshot: load().catch((error) => {
      open.delete(key);
      throw error;
    }),
    withLinks: async () => {
      links ??= add('links').catch((error) => {
        links = null;
        throw error;
      });
      await links;
    },
  };
  return entry;
}

/**
 * The snapshot of a crawl that has ended; null when it has none. Kept open for the next question.
 * @param need whether its links are asked for, which are most of it; without them only the facts of pages can be read
 */
export async function openSnapshot(
  db: Database,
  row: Pick<CrawlRow, 'id' | 'endedAt'>,
  need: PartGroup = 'links',
): Promise<Snapshot | null> {
  const key = keyOf(row);
  const entry = open.get(key) ?? openEntry(db, row.id, key);
  open.delete(key);
  open.set(key, entry);
  const snapshot = await entry.snapshot;
  if (!snapshot) open.delete(key);
  else if (need === 'links') await entry.withLinks();
  return snapshot;
}

function evict(keep: string) {
  let total = [...open.values()].reduce((sum, { bytes }) => sum + bytes, 0);
  for (const [key, { bytes }] of open) {
    if (total <= MAX_OPEN_BYTES) return;
    if (key === keep) continue;
    open.delete(key);
    total -= bytes;
  }
}
