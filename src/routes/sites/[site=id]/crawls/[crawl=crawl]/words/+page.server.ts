import { wordsAnswer } from '$core/answers';
import { LINKS_WANTED, pagesInNeed } from '$core/places';
import { addressAt, factAt, pageOf } from '$core/snapshot';
import { lostShare, wordingsOf } from '$core/wordings';
import { screenState } from '$lib/shell/address';
import { appDatabase, openTexts, requestTexts, textsProgress } from '$server/index';
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
  const item = state.item ? pageOf(view, state.item) : -1;
  const shown = item >= 0 ? item : targets[0]?.page;
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
      total: targets.length,
      pages: targets.slice(0, MOST).map(({ page, own, lost }) => ({
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
            total: wordings.get(shown)?.length ?? 0,
            wordings: (wordings.get(shown) ?? []).slice(0, MOST_WORDINGS).map(({ target: _, better, ...one }) => ({
              ...one,
              better: better < 0 ? null : named(better),
            })),
          },
  };
};
