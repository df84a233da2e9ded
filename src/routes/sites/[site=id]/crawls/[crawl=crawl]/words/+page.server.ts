import { wordsAnswer } from '$core/answers';
import { LINKS_WANTED, pagesInNeed } from '$core/places';
import { addressAt, factAt, pageOf } from '$core/snapshot';
import type { TextIndex } from '$core/textIndex';
import type { View } from '$core/view';
import { lostShare, seemsWrong } from '$core/wordings';
import type { Wording } from '$core/wordings';
import { screenState } from '$lib/shell/address';
import { appDatabase, dismissalsOf, openTexts, openWordings, requestTexts, textsProgress } from '$server/index';
import { crawlWithSnapshot, hasEnded, localsOf } from '../../../../../crawl';
import type { PageServerLoad } from './$types';

/** Rows of a list that are shown. */
const MOST = 500;
/** Wordings of one page. */
const MOST_WORDINGS = 300;
/** Links that a page can be said to need. */
const MOST_WANTED = 50;

/** A page that is linked to, with the wordings that the screen is about. */
interface Target {
  page: number;
  own: readonly Wording[];
}

const named = (view: View, page: number) => ({
  address: addressAt(view, page),
  title: factAt(view, 'title', page) as string | null,
});

function needOf(view: View, index: TextIndex | null, wanted: number) {
  const need = pagesInNeed(view, wanted, index?.goodPlaces);
  return {
    total: need.length,
    pages: need.slice(0, MOST).map((page) => ({
      ...named(view, page),
      linking: factAt(view, 'pages_linking_text', page) as number | null,
      depth: factAt(view, 'depth', page) as number | null,
      good: index?.goodPlaces.get(page) ?? null,
    })),
  };
}

/** All targets, those first that lose most share under faulty words. */
const byLoss = (wordings: ReadonlyMap<number, readonly Wording[]>): Target[] =>
  [...wordings]
    .map(([page, own]) => ({ page, own, lost: lostShare(own) }))
    .sort((a, b) => b.lost - a.lost || a.page - b.page);

/** The targets with links that seem wrong and that nobody has kept as they are, the worst fit first. */
function seemingWrong(view: View, targets: readonly Target[], kept: ReadonlyMap<string, ReadonlySet<string>>) {
  const isKept = ({ target, anchor }: Wording) => kept.get(addressAt(view, target))?.has(anchor);
  return targets
    .map(({ page, own }) => ({
      page,
      own: own.filter((one) => seemsWrong(one) && !isKept(one)).sort((a, b) => a.fit - b.fit),
    }))
    .filter(({ own }) => own.length > 0)
    .sort((a, b) => a.own[0].fit - b.own[0].fit || b.own.length - a.own.length || a.page - b.page);
}

const shownTarget = (view: View, { page, own }: Target) => ({
  ...named(view, page),
  total: own.length,
  wordings: own.slice(0, MOST_WORDINGS).map(({ target: _, better, ...one }) => ({
    ...one,
    better: better < 0 ? null : named(view, better),
  })),
});

export const load: PageServerLoad = async (event) => {
  const state = screenState(event.url);
  const { snapshot: view, crawl } = await crawlWithSnapshot(localsOf(event), 'words');
  const db = appDatabase();
  const index = await openTexts(db, crawl);
  if (!index && hasEnded(crawl)) await requestTexts(db, crawl.id);
  const wanted = Math.min(MOST_WANTED, Number(event.url.searchParams.get('wanted')) || LINKS_WANTED);
  const all = byLoss(openWordings(view));
  const targets =
    state.picture === 'moves' ? seemingWrong(view, all, await dismissalsOf(db, crawl.siteId, 'wording')) : all;
  const item = state.item ? pageOf(view, state.item) : -1;
  const shown = item < 0 ? targets[0] : (targets.find(({ page }) => page === item) ?? { page: item, own: [] });
  return {
    answer: wordsAnswer(
      view,
      index,
      wanted,
      all.flatMap(({ own }) => own),
    ),
    progress: index ? null : await textsProgress(db, crawl.id),
    isIndexed: index !== null,
    wanted,
    need: needOf(view, index, wanted),
    targets: {
      total: targets.length,
      pages: targets.slice(0, MOST).map(({ page, own }) => ({
        ...named(view, page),
        wordings: own.length,
        faulty: own.reduce((sum, { faults, occurrences }) => sum + (faults.length ? occurrences : 0), 0),
        lost: lostShare(own),
      })),
    },
    shown: shown ? shownTarget(view, shown) : null,
  };
};
