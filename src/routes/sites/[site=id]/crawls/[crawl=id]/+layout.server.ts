import { error } from '@sveltejs/kit';
import { screenOf } from '$lib/routes';
import { appDatabase, crawlsOf, getCrawl, getSite, keptSelections, storedReport } from '$server/index';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async ({ params, depends }) => {
  depends('crawl:state', 'site:kept');
  const db = appDatabase();
  const [site, crawl] = await Promise.all([getSite(db, Number(params.site)), getCrawl(db, Number(params.crawl))]);
  if (!site || !crawl || crawl.siteId !== site.id) error(404, 'There is no such crawl.');
  const ended = crawl.state === 'done' || crawl.state === 'stopped';
  const [crawls, kept, report] = await Promise.all([
    crawlsOf(db, site.id, 12),
    keptSelections(db, site.id),
    ended ? storedReport(db, crawl) : null,
  ]);
  return {
    site: { id: site.id, start: site.start, kept },
    crawl,
    crawls: crawls.reverse().map(({ id, state, known, startedAt, createdAt }) => ({
      id,
      state,
      known,
      at: startedAt ?? createdAt,
    })),
    /** What the palette offers, and what the questions count. */
    findings: (report?.findings ?? []).map((finding) => {
      const { id, name, question, over, select, occurrences, edits } = finding;
      return { id, name, question, over, select, occurrences, edits, screen: screenOf(finding) };
    }),
  };
};
