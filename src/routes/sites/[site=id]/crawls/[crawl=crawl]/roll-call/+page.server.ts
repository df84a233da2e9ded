import { error, redirect } from '@sveltejs/kit';
import { agreementOf, foldersOf, MAX_SOURCES, sourceBookOf, sourceSizesOf } from '$core/agreement';
import { rollCallAnswer, sitemapRows } from '$core/answers';
import { unknownOf } from '$core/imports';
import { addressAt } from '$core/snapshot';
import { readSources } from '$lib/rollCall/sources';
import { crawlPath } from '$lib/shell/routes';
import { crawlsOf, crawlSourceName, fetchToo, getCrawl, importsOfCrawl, liveChecksOf, openReport } from '$server/index';
import type { CrawlState, Database, UrlImport } from '$server/index';
import { crawlWithSnapshot, hasEnded } from '../../../../../crawl';
import { listScreen } from '../../../../../screen';
import { errorTexts } from '../../../../../texts';
import type { Actions, PageServerLoad } from './$types';
import { withImports } from '$core/view';
import type { View } from '$core/view';

/** What the list shows while nobody has chosen its columns. */
const COLUMNS = 'url:300p,log_hits:84,crawler_hits:104,last_hit:150,list_hits:84,verdict:176,seen_in:170,depth:64';

/** The bits of the sources that take part: those that the state names, or all. */
function chosenBits(names: readonly string[], asked: string): number {
  const wanted = readSources(asked);
  const bits = names.reduce((sum, name, at) => sum + (wanted.includes(name) ? 2 ** at : 0), 0);
  return bits || 2 ** names.length - 1;
}

/** The snapshot with as many imports as can be compared, the newest. */
function comparedOf(snapshot: View): View {
  const most = MAX_SOURCES - 2;
  if (snapshot.imports.length <= most) return snapshot;
  return withImports(snapshot, snapshot.imports.slice(-most));
}

/** Addresses that only imports know and that are shown. */
const MOST_UNKNOWN = 200;

/** Other crawls of the site that can be made a source and are none yet. */
async function earlierCrawls(db: Database, { id, siteId }: CrawlState, imports: readonly UrlImport[]) {
  const taken = new Set(imports.map(({ name }) => name));
  return (await crawlsOf(db, siteId))
    .filter((one) => one.id < id && hasEnded(one) && !taken.has(crawlSourceName(one)))
    .map((one) => ({ id: one.id, name: crawlSourceName(one) }));
}

/** The sitemaps of a crawl, each with what the newest check of it has found. */
async function sitemapsShown(db: Database, { id, siteId }: CrawlState, snapshot: View) {
  const { sitemaps, token } = (await getCrawl(db, id))!.settings;
  const rows = sitemapRows(snapshot, { given: sitemaps, token });
  const addresses = rows.map(({ address }) => address);
  const checks = await liveChecksOf(db, siteId, 'sitemap', addresses);
  return rows.map((row) => ({ ...row, check: checks.get(row.address) ?? null }));
}

export const load: PageServerLoad = async (event) => {
  const { db, crawl, snapshot, state, list } = await listScreen(event, COLUMNS);
  const { picture } = state;
  const imports = await importsOfCrawl(db, crawl.id);
  const compared = comparedOf(snapshot);
  const book = sourceBookOf(compared);
  const sizes = sourceSizesOf(book);
  const chosen = chosenBits(book.names, state.sources);
  const rows = agreementOf(book, snapshot.column('verdict'), chosen);
  // By folder the first two that take part are set side by side.
  const taking = book.names.flatMap((_, at) => (chosen & (1 << at) ? [at] : []));
  const [first, second] = taking.length > 1 ? taking : [taking[0], taking[0] === 0 ? 1 : 0];
  const addressOf = (at: number) => (at < book.pages ? addressAt(snapshot, at) : book.unknown[at - book.pages]);
  const has = (source: 0 | 1, at: number) => (book.known[at] & (1 << (source ? second : first))) !== 0;
  const unknown = unknownOf(snapshot.imports);
  const report = picture === 'sitemaps' ? await openReport(db, crawl) : null;
  return {
    list,
    answer: rollCallAnswer(snapshot),
    names: book.names,
    sources: book.names.map((name, at) => ({
      name,
      urls: sizes.urls[at],
      alone: sizes.alone[at],
      isChosen: (chosen & (1 << at)) !== 0,
      from: at < 2 ? null : (imports.find(({ id }) => id === compared.imports[at - 2].id) ?? null),
    })),
    rows,
    unknown: {
      total: unknown.answered.length,
      first: unknown.answered.slice(0, MOST_UNKNOWN),
      errors: unknown.errors.length,
    },
    hasEnded: hasEnded(crawl),
    earlier: await earlierCrawls(db, crawl, imports),
    folders: picture === 'folders' ? { first, second, rows: foldersOf(book.known.length, addressOf, has) } : null,
    sitemaps: picture === 'sitemaps' ? await sitemapsShown(db, crawl, snapshot) : null,
    faults:
      report?.findings.flatMap(({ name, files }) =>
        files.flatMap(({ file, line, evidence }) =>
          file.endsWith('/robots.txt') ? [] : [{ name, file, line, evidence }],
        ),
      ) ?? [],
  };
};

export const actions: Actions = {
  /** Fetches the addresses that only imports know, and that have answered, into the crawl, which is resumed. */
  fetch: async ({ locals }) => {
    const { db, crawl, snapshot } = await crawlWithSnapshot(locals, 'facts');
    // Workers hold what a running crawl has still to fetch.
    if (!hasEnded(crawl)) error(409, errorTexts.crawlGoesOn);
    await fetchToo(db, crawl, unknownOf(snapshot.imports).answered);
    redirect(303, `${crawlPath(crawl.siteId, crawl.id)}/watch`);
  },
};
