import { wordsAnswer } from '$core/answers';
import { LINKS_WANTED, pagesInNeed } from '$core/places';
import { addressAt, factAt, pageOf } from '$core/snapshot';
import { lostShare, seemsWrong, wordingsOf } from '$core/wordings';
import type { Wording } from '$core/wordings';
import { screenState } from '$lib/shell/address';
import { appDatabase, dismissalsOf, openTexts, requestTexts, textsProgress } from '$server/index';
import { crawlWithSnapshot, localsOf } from '../../../../../crawl';
import type { PageServerLoad } from './$types';

/** Rows of a list that are shown. */
const MOST = 500;
/** Wordings of one page. */
const MOST_WORDINGS = 300;

export const load: PageServerLoad = async (event) => {
  const state = screenState(event.url);
  const { snapshot: view, crawl } = await crawlWithSnapshot(localsOf(event), 'words');
  const db = appDatabase();
  const index = await openTexts(db, crawl);
  if (!index) await requestTexts(db, crawl.id);
  const wanted = Number(event.url.searchParams.get('wanted')) || LINKS_WANTED;
  const need = pagesInNeed(view, wanted, index?.goodPlaces);
  const wordings = wordingsOf(view);
  const targets = [...wordings].map(([page, own]) => ({ page, own, lost: lostShare(own) }));
  targets.sort((a, b) => b.lost - a.lost || a.page - b.page);
  const named = (page: number) => ({
    address: addressAt(view, page),
    title: factAt(view, 'title', page) as string | null,
  });
  const kept =
    state.picture === 'moves' ? await dismissalsOf(db, crawl.siteId, 'wording') : new Map<string, Set<string>>();
  const wrong = state.picture === 'moves' ? targets.map((one) => ({ ...one, own: one.own.filter(isOpen) })) : [];
  /** Whether a wording seems wrong and nobody has said that it is not. */
  function isOpen(one: Wording): boolean {
    return seemsWrong(one) && !kept.get(addressAt(view, one.target))?.has(one.anchor);
  }
  const moves = wrong.filter(({ own }) => own.length > 0);
  for (const { own } of moves) own.sort((a, b) => a.fit - b.fit);
  moves.sort((a, b) => a.own[0].fit - b.own[0].fit || b.own.length - a.own.length || a.page - b.page);
  const item = state.item ? pageOf(view, state.item) : -1;
  const listed = state.picture === 'moves' ? moves : targets;
  const shown = item >= 0 ? item : listed[0]?.page;
  const ofShown =
    (state.picture === 'moves' ? moves.find(({ page }) => page === shown)?.own : wordings.get(shown ?? -1)) ?? [];
  return {
    answer: wordsAnswer(
      view,
      index,
      wanted,
      targets.flatMap(({ own }) => own),
    ),
    progress: index ? null : await textsProgress(db, crawl.id),
    isIndexed: index !== null,
    wanted,
    need: {
      total: need.length,
      pages: need.slice(0, MOST).map((page) => ({
        ...named(page),
        linking: factAt(view, 'pages_linking_text', page) as number | null,
        depth: factAt(view, 'depth', page) as number | null,
        good: index?.goodPlaces.get(page) ?? null,
      })),
    },
    targets: {
      total: listed.length,
      pages: listed.slice(0, MOST).map(({ page, own, lost }) => ({
        ...named(page),
        wordings: own.length,
        faulty: own.reduce((sum, { faults, occurrences }) => sum + (faults.length ? occurrences : 0), 0),
        lost,
      })),
    },
    shown:
      shown === undefined
        ? null
        : {
            ...named(shown),
            total: ofShown.length,
            wordings: ofShown.slice(0, MOST_WORDINGS).map(({ target: _, better, ...one }) => ({
              ...one,
              better: better < 0 ? null : named(better),
            })),
          },
  };
};
