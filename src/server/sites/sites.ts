/** Sites: their settings and secrets. */
import { eq } from 'drizzle-orm';
import { noSecrets, secretsSchema } from '$core/settings';
import type { CrawlSettings, Secrets } from '$core/settings';
import { hashOf } from '../database';
import type { Database } from '../database';
import { site } from '../database/schema';
import { seal, unseal } from './secrets';

export type Site = typeof site.$inferSelect;
/** What a list of sites says of each. */
export type SiteName = Pick<Site, 'id' | 'start'>;

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
    .onDuplicateKeyUpdate({ set: { settings, ...sealed } });
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

/** The name of a site. */
export async function siteName(db: Database, id: number): Promise<SiteName | undefined> {
  return (await db.select({ id: site.id, start: site.start }).from(site).where(eq(site.id, id)))[0];
}

/** The site that is known by a start address. */
export async function siteByStart(db: Database, start: string): Promise<Site | undefined> {
  return (
    await db
      .select()
      .from(site)
      .where(eq(site.startHash, hashOf(start)))
  )[0];
}

/** All sites, in the order in which they were added. */
export const siteNames = (db: Database): Promise<SiteName[]> =>
  db.select({ id: site.id, start: site.start }).from(site).orderBy(site.id);
