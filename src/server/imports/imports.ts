/**
 * Sources of URLs besides the crawl: lists and access logs that a person has imported (docs/ARCHITECTURE.md,
 * "Storage").
 */
import { promisify } from 'node:util';
import { deflate, inflate } from 'node:zlib';
import { and, asc, desc, eq, getTableColumns, inArray, isNull, sql } from 'drizzle-orm';
import { ROWS_COLUMN } from '$core/imports';
import type { ImportedSource, ImportKind } from '$core/imports';
import type { Message } from '$core/messages';
import type { Database } from '../database';
import { crawl, crawlImport, importPart, site, urlImport } from '../database/schema';
import { packParts } from './pack';
import type { PackedPart } from './pack';
import { addressesOf, readAddresses, readContent, writeParts } from './parts';

export interface UrlImport {
  id: number;
  kind: ImportKind;
  name: string;
  /** How many addresses it holds. */
  urls: number;
  /** The file that it comes from; null for a list that was typed. */
  file: string | null;
  lines: number;
  rejected: number;
  createdAt: Date;
}

/** A line of a file that was left out. */
export interface Reject {
  /** 1-based. */
  line: number;
  reason: Message;
}

/** The name of the list that the settings screen edits. */
export const SETTINGS_LIST = 'Settings';

const {
  siteId: _site,
  digest: _digest,
  rejects: _rejects,
  replacedAt: _replaced,
  ...described
} = getTableColumns(urlImport);

/** The imports of a site that its next crawl uses. */
export const importsOf = (db: Database, siteId: number): Promise<UrlImport[]> =>
  db
    .select(described)
    .from(urlImport)
    .where(and(eq(urlImport.siteId, siteId), isNull(urlImport.replacedAt)))
    .orderBy(asc(urlImport.id));

/** The imports that count for a crawl. */
export const importsOfCrawl = (db: Database, crawlId: number): Promise<UrlImport[]> =>
  db
    .select(described)
    .from(urlImport)
    .innerJoin(crawlImport, eq(urlImport.id, crawlImport.importId))
    .where(eq(crawlImport.crawlId, crawlId))
    .orderBy(asc(urlImport.id));

/** The import of a site from a file with this digest; null when there is none. */
async function importOfFile(
  db: Pick<Database, 'select'>,
  siteId: number,
  digest: string | null,
): Promise<UrlImport | null> {
  if (digest === null) return null;
  const [found] = await db
    .select(described)
    .from(urlImport)
    .where(and(eq(urlImport.siteId, siteId), eq(urlImport.digest, digest), isNull(urlImport.replacedAt)));
  return found ?? null;
}

export interface NewImport {
  kind: ImportKind;
  name: string;
  file: string | null;
  digest: string | null;
  lines: number;
  rejected: number;
  rejects: readonly Reject[];
  /** How many addresses it holds. */
  urls: number;
  parts: readonly PackedPart[];
}

/** The newest crawl of a site that has ended with a result; null when there is none. */
export async function newestEnded(db: Pick<Database, 'select'>, siteId: number) {
  const [found] = await db
    .select()
    .from(crawl)
    .where(and(eq(crawl.siteId, siteId), inArray(crawl.state, ['done', 'stopped']), isNull(crawl.deletedAt)))
    .orderBy(desc(crawl.id))
    .limit(1);
  return found ?? null;
}

export interface SavedImport {
  id: number;
  /** The import of the same file that there was; when it has the number `id`, nothing has changed. */
  before: UrlImport | null;
}

/**
 * Stores an import of a site in place of one of the same kind and name, all of it or nothing; nothing where it is
 * stored already, from the same file and under the same name.
 * @param counts whether it counts for the newest crawl at once; it does for later ones in any case
 */
export const saveImport = (db: Database, siteId: number, given: NewImport, counts: boolean): Promise<SavedImport> =>
  db.transaction(async (tx) => {
    const { rejects, parts, ...rest } = given;
    const { kind, name, digest, urls, rejected } = rest;
    // One at a time: who uploads the same file twice at once finds the first when the second is stored.
    await tx.select({ id: site.id }).from(site).where(eq(site.id, siteId)).for('update');
    const before = await importOfFile(tx, siteId, digest);
    if (before?.name === name && before.urls === urls && before.rejected === rejected) return { id: before.id, before };
    const newest = counts ? await newestEnded(tx, siteId) : null;
    await takeAway(
      tx,
      and(eq(urlImport.siteId, siteId), eq(urlImport.kind, kind), eq(urlImport.name, name)),
      newest?.id,
    );
    const packed = await promisify(deflate)(JSON.stringify(rejects));
    const [{ id }] = await tx
      .insert(urlImport)
      .values({ siteId, ...rest, rejects: packed })
      .$returningId();
    await writeParts(tx, id, parts);
    if (newest) await tx.insert(crawlImport).values({ crawlId: newest.id, importId: id });
    return { id, before };
  });

/**
 * Takes imports away from a site, and from its newest crawl; earlier crawls keep those that they used.
 * @returns whether there were any
 */
async function takeAway(
  tx: Pick<Database, 'select' | 'update' | 'delete'>,
  which: Parameters<typeof and>[0],
  newest: number | undefined,
) {
  const rows = await tx
    .select({ id: urlImport.id })
    .from(urlImport)
    .where(and(which, isNull(urlImport.replacedAt)));
  for (const { id } of rows) {
    await tx
      .update(urlImport)
      .set({ replacedAt: sql`current_timestamp(3)` })
      .where(eq(urlImport.id, id));
    if (newest !== undefined)
      await tx.delete(crawlImport).where(and(eq(crawlImport.importId, id), eq(crawlImport.crawlId, newest)));
    const [used] = await tx
      .select({ id: crawlImport.crawlId })
      .from(crawlImport)
      .where(eq(crawlImport.importId, id))
      .limit(1);
    if (used) continue;
    await tx.delete(importPart).where(eq(importPart.importId, id));
    await tx.delete(urlImport).where(eq(urlImport.id, id));
  }
  return rows.length > 0;
}

/** Removes an import of a site. @returns whether there was one */
export const removeImport = (db: Database, siteId: number, id: number): Promise<boolean> =>
  db.transaction(async (tx) => {
    const newest = await newestEnded(tx, siteId);
    return takeAway(tx, and(eq(urlImport.siteId, siteId), eq(urlImport.id, id)), newest?.id);
  });

/**
 * Stores a list of addresses that was typed in place of one of the same name. Nothing is stored when that holds the
 * same.
 * @param addresses in normal form; an empty list only takes the earlier one away
 */
export async function saveList(db: Database, siteId: number, name: string, addresses: readonly string[]) {
  const ordered = [...new Set(addresses)].sort();
  const before = (await importsOf(db, siteId)).find((one) => one.kind === 'list' && one.name === name);
  if (before) {
    const known = await readAddresses(db, before.id);
    if (known.length === ordered.length && ordered.every((address, i) => address === known[i])) return;
    if (ordered.length === 0) return removeFromSite(db, before.id);
  } else if (ordered.length === 0) return;
  const lines = ordered.length;
  const columns = { [ROWS_COLUMN]: new Float64Array(lines).fill(1) };
  const parts = await packParts({ addresses: ordered, columns, cells: null });
  const rest = { file: null, digest: null, lines, rejected: 0, rejects: [], urls: lines };
  await saveImport(db, siteId, { kind: 'list', name, parts, ...rest }, false);
}

const removeFromSite = async (db: Database, id: number): Promise<void> =>
  void (await db.transaction((tx) => takeAway(tx, eq(urlImport.id, id), undefined)));

/** The lines that were left out of an import, the first of them; null when there is no such import of the site. */
export async function rejectsOf(db: Database, siteId: number, id: number): Promise<Reject[] | null> {
  const [found] = await db
    .select({ rejects: urlImport.rejects })
    .from(urlImport)
    .where(and(eq(urlImport.siteId, siteId), eq(urlImport.id, id)));
  if (!found) return null;
  if (!found.rejects) return [];
  return JSON.parse((await promisify(inflate)(found.rejects)).toString()) as Reject[];
}

/** The addresses of some lists, some thousand at a time. */
export async function* importedAddresses(db: Database, imports: readonly number[]): AsyncGenerator<string[]> {
  for (const id of imports) yield* addressesOf(db, id);
}

/** The addresses that the lists of a crawl hold. */
export async function listedAddresses(db: Database, crawlId: number): Promise<Set<string>> {
  const listed = new Set<string>();
  for (const { id, kind } of await importsOfCrawl(db, crawlId))
    if (kind === 'list') for (const address of await readAddresses(db, id)) listed.add(address);
  return listed;
}

/** The imports that count for a crawl, whole. */
export async function sourcesOfCrawl(db: Database, crawlId: number): Promise<ImportedSource[]> {
  const found: ImportedSource[] = [];
  for (const { id, kind, name } of await importsOfCrawl(db, crawlId))
    found.push({ id, kind, name, ...(await readContent(db, id)) });
  return found;
}

/** Notes, within a transaction, that the imports that a site has now count for a crawl. */
export const useImports = (db: Pick<Database, 'execute'>, crawlId: number, siteId: number) =>
  db.execute(
    sql`insert into ${crawlImport} (crawl_id, import_id)
        select ${crawlId}, id from ${urlImport} where site_id = ${siteId} and replaced_at is null`,
  );

/** Notes that the imports that count for one crawl do for another. */
export const copyImports = (db: Pick<Database, 'execute'>, crawlId: number, from: number) =>
  db.execute(
    sql`insert ignore into ${crawlImport} (crawl_id, import_id)
        select ${crawlId}, import_id from ${crawlImport} where crawl_id = ${from}`,
  );
