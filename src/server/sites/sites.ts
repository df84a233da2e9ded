/** Sites: their settings and secrets. */
import { and, eq, isNull } from 'drizzle-orm';
import { noSecrets, secretsSchema } from '$core/settings';
import type { CrawlSettings, Secrets } from '$core/settings';
import { hashOf } from '../database';
import type { Database } from '../database';
import { site } from '../database/schema';
import { seal, unseal } from './secrets';

export type Site = typeof site.$inferSelect;
/** What a site is known by. */
export type SiteName = Pick<Site, 'id' | 'start' | 'name'>;
const nameColumns = { id: site.id, start: site.start, name: site.name };

/**
 * The site with this start address, made if there is none, with these settings from now on.
 * @param secrets headers, cookies and password from now on; those it has are kept when absent
 */
export async function saveSite(db: Database, settings: CrawlSettings, secrets?: Secrets): Promise<number> {
  const startHash = hashOf(settings.start);
  const sealed = secrets && { secrets: hasSecrets(secrets) ? seal(secrets) : null };
  await db
    .insert(site)
    .values({ start: settings.start, startHash, settings, ...sealed })
    // One that was deleted comes back without its crawls.
    .onDuplicateKeyUpdate({ set: { settings, deletedAt: null, ...sealed } });
  const [row] = await db.select({ id: site.id }).from(site).where(eq(site.startHash, startHash));
  return row.id;
}

const hasSecrets = ({ headers, cookie, basic }: Secrets) => headers.length > 0 || cookie !== '' || basic !== null;

/** What a site or crawl sends with its requests and nobody sees again. */
export const secretsOf = ({ secrets }: Pick<Site, 'secrets'>): Secrets =>
  secrets ? secretsSchema.parse(unseal(secrets)) : noSecrets;

/** A site with its settings. */
export async function getSite(db: Database, id: number): Promise<Site | undefined> {
  return (await db.select().from(site).where(eq(site.id, id)))[0];
}

/** The name of a site that is not deleted. */
export async function siteName(db: Database, id: number): Promise<SiteName | undefined> {
  return (
    await db
      .select(nameColumns)
      .from(site)
      .where(and(eq(site.id, id), isNull(site.deletedAt)))
  )[0];
}

/** Names a site; '' calls it by its address again. */
export const renameSite = async (db: Database, id: number, name: string): Promise<void> =>
  void (await db
    .update(site)
    .set({ name: name || null })
    .where(eq(site.id, id)));

/** The site that is known by a start address. */
export async function siteByStart(db: Database, start: string): Promise<Site | undefined> {
  return (
    await db
      .select()
      .from(site)
      .where(and(eq(site.startHash, hashOf(start)), isNull(site.deletedAt)))
  )[0];
}

/** All sites, in the order in which they were added. */
export const siteNames = (db: Database): Promise<SiteName[]> =>
  db.select(nameColumns).from(site).where(isNull(site.deletedAt)).orderBy(site.id);
