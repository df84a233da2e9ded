import { changeAnswer, changeCounts, changeFlow, changeSelections, flowCategories } from '$core/answers';
import type { FlowCategory } from '$core/answers';
import { compareSettings, linkChangesOf } from '$core/compare';
import { changeSelects, compareFindings, findings } from '$core/findings';
import { listedOf } from '$core/lists';
import { comingRuns, zones } from '$core/schedule';
import { settingsSchema } from '$core/settings';
import { draftName } from '$lib/draft/texts';
import { moment } from '$lib/shell/words';
import {
  crawlSettings,
  crawlsOf,
  dateNotes,
  draftsOf,
  earlierCrawls,
  getSite,
  listWindow,
  reportedIn,
  scheduleOf,
  siteNames,
} from '$server/index';
import type { CrawlState, Database } from '$server/index';
import { crawlWithEarlier, hasEnded } from '../../../../../crawl';
import { listScreen } from '../../../../../screen';
import { comparisonOf } from '../../../../../view';
import type { PageServerLoad } from './$types';

/** Edits that are told in words; the list has all of them. */
const MOST_EDITS = 8;

/** What the answer begins with where no earlier crawl is beside this one. */
function besideText({ version }: App.Locals, id: number | null, drafts: readonly { id: number; name: string }[]) {
  if (version === 'predicted') return 'Compared with the prediction';
  const other = drafts.find((one) => one.id === id);
  return other && `Compared with the draft “${draftName(other)}”`;
}

/** The crawls that can be chosen, by site: this one first. */
async function choices(db: Database, crawl: CrawlState) {
  const [crawls, sites] = await Promise.all([earlierCrawls(db), siteNames(db)]);
  return sites
    .map(({ id, name, start }) => ({
      id,
      name: name ?? new URL(start).host,
      host: new URL(start).host,
      isThis: id === crawl.siteId,
      crawls: crawls
        .filter(({ siteId, id: other }) => siteId === id && other !== crawl.id)
        .map((one) => ({ id: one.id, at: one.at, known: one.counts?.known ?? null })),
    }))
    .filter(({ crawls }) => crawls.length > 0)
    .sort((a, b) => Number(b.isThis) - Number(a.isThis));
}

/** Crawls that a timeline shows, and runs that are told ahead. */
const MOST_CRAWLS = 60;
const MOST_COMING = 5;

/** All crawls of the site, its notes, and the crawls to come. */
async function timelineOf(db: Database, siteId: number) {
  const [crawls, notes, schedule, site] = await Promise.all([
    crawlsOf(db, siteId, MOST_CRAWLS),
    dateNotes(db, siteId),
    scheduleOf(db, siteId),
    getSite(db, siteId),
  ]);
  return {
    crawls: crawls
      .filter(hasEnded)
      .reverse()
      .map(({ id, endedAt, counts, pinned }) => ({ id, at: endedAt, counts, pinned })),
    notes,
    schedule,
    coming:
      schedule && !schedule.paused ? [schedule.nextAt, ...comingRuns(schedule, schedule.nextAt, MOST_COMING - 1)] : [],
    zones: zones(),
    keep: site?.keepCrawls ?? null,
  };
}

export const load: PageServerLoad = async (event) => {
  const { db, crawl, state, list } = await listScreen(event);
  const { picture } = state;
  const needsLinks = picture === 'links' || picture === 'findings' || listedOf(state.list) === 'links';
  const call = comparisonOf(event.url.searchParams);
  const [{ compared }, sites, timeline] = await Promise.all([
    crawlWithEarlier(event.locals, needsLinks ? 'links' : 'facts', call),
    choices(db, crawl),
    picture === 'timeline' ? timelineOf(db, crawl.siteId) : null,
  ]);
  if (!compared) return { list, sites, timeline, compared: null };
  const { earlier, snapshot } = compared;
  const { comparison } = snapshot;
  const settingsOf = async ({ id }: CrawlState) => settingsSchema.parse(await crawlSettings(db, id));
  const [then, now, isReported] = await Promise.all([
    settingsOf(earlier),
    settingsOf(crawl),
    // Of a draft there is no report yet that could be asked.
    earlier.id === crawl.id ? () => true : reportedIn(db, [earlier, crawl]),
  ]);
  const category = (flowCategories as readonly string[]).includes(state.order)
    ? (state.order as FlowCategory)
    : 'verdict';
  const changes = () => compareFindings(comparison, [then, now], isReported);
  const ofPages = (id: string) => findings.find((one) => one.id === id)!.over === 'pages';
  const named = (id: string) => findings.find((one) => one.id === id)!.name;
  const known = picture === '' && category === 'finding' ? changes().filter(({ finding }) => ofPages(finding)) : [];
  const finding = known.some((one) => one.finding === state.item) ? state.item : (known[0]?.finding ?? '');
  const { added, removed, edits } =
    picture === 'links' ? linkChangesOf(comparison) : { added: [], removed: [], edits: 0 };
  const editView = { list: 'changed_edits', select: '', sort: '', by: 'section' } as const;
  return {
    list,
    sites,
    timeline,
    compared: {
      earlier: { id: earlier.id, siteId: earlier.siteId, at: earlier.startedAt, limited: earlier.limited },
      answer: changeAnswer(
        snapshot,
        earlier.id === crawl.id ? null : `crawl ${earlier.id} of ${moment(earlier.startedAt)}`,
        besideText(event.locals, call.draft, call.draft === null ? [] : await draftsOf(db, crawl.siteId)),
      ),
      counts: changeCounts(comparison),
      unfetched: { now: changeSelections.unfetchedNow, then: changeSelections.unfetchedThen },
      settings: compareSettings(then, now),
      limits: { then: then.limit, now: now.limit },
      flow:
        picture === ''
          ? {
              category,
              ...changeFlow(comparison, category, finding, now.thresholds),
              finding,
              findings: known.map((one) => ({ id: one.finding, name: named(one.finding) })),
            }
          : null,
      links:
        picture === 'links'
          ? {
              added: added.length,
              removed: removed.length,
              edits,
              first: listWindow(snapshot, editView, ['change', 'placement', 'target', 'anchor', 'pages'], 0, MOST_EDITS)
                .rows,
            }
          : null,
      findings:
        picture === 'findings'
          ? changes()
              .map((one) => ({ ...one, name: named(one.finding), selects: changeSelects(one.finding, now.thresholds) }))
              .sort((a, b) => b.new - a.new || b.solved + b.gone - a.solved - a.gone || b.remaining - a.remaining)
          : null,
    },
  };
};
