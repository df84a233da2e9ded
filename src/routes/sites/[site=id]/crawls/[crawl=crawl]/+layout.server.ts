import { crawlOf, hasEnded, isSoFar, localsOf, reportFor, siteOf } from '../../../../crawl';
import { draftBrief } from '../../../../draft';
import { knownLimitOf } from '$core/settings';
import { screenOf } from '$lib/shell/routes';
import { appDatabase, crawlSettings, crawlsOf, currentDraft, savedSelections } from '$server/index';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async (event) => {
  const locals = localsOf(event);
  event.depends('crawl:state', 'site:saved', 'draft');
  const db = appDatabase();
  const [site, crawl] = [siteOf(locals), crawlOf(locals)];
  const [crawls, saved, report, settings, draft] = await Promise.all([
    crawlsOf(db, site.id, 12),
    savedSelections(db, site.id),
    hasEnded(crawl) || isSoFar(crawl) ? reportFor(locals) : null,
    crawlSettings(db, crawl.id),
    currentDraft(db, site.id),
  ]);
  const { id, state, reason, limited, baseId, known, done, unanswered, bytes, ranMs, current, request, analysedAt } =
    crawl;
  const { limit, depth, minutes, megabytes, connections, rate } = settings;
  return {
    site: { id: site.id, start: site.start, name: site.name, saved },
    crawl: {
      ...{ id, state, reason, limited, baseId, known, done, unanswered, bytes, ranMs, current, request, analysedAt },
      at: crawl.startedAt ?? crawl.createdAt,
      version: locals.version,
      planned: crawl.planned,
      /**
       * When what its screens show was analysed, while it has not ended; null when they cannot be opened, or are final.
       */
      soFar: isSoFar(crawl) ? crawl.analysedAt : null,
      /** What of its settings screens speak of. */
      settings: { limit, knownLimit: knownLimitOf(settings), depth, minutes, megabytes, connections, rate },
    },
    crawls: crawls.reverse().map(({ id, state, known, startedAt, createdAt }) => ({
      ...{ id, state, known },
      at: startedAt ?? createdAt,
    })),
    draft: draftBrief(draft),
    /** What the palette offers, and what the questions count. */
    findings: (report?.findings ?? []).map((finding) => {
      const { id, name, question, over, select, occurrences, edits } = finding;
      return { id, name, question, over, select, occurrences, edits, screen: screenOf(finding) };
    }),
  };
};
