import { wordsAnswer } from '$core/answers';
import { LINKS_WANTED } from '$core/places';
import { readTexts } from '$core/view';
import { screenState } from '$lib/shell/address';
import {
  appDatabase,
  dismissalsOf,
  openTexts,
  openWordings,
  readFirstSeen,
  requestTexts,
  textsProgress,
} from '$server/index';
import { crawlWithSnapshot, draftOver, hasEnded, localsOf } from '../../../../../crawl';
import type { PageServerLoad } from './$types';
import { byPage, bySection, byTarget, byWords, toMove } from './anchors';
import { givers, inNeed } from './need';
import { searched } from './search';

/** Links that a page can be said to need. */
const MOST_WANTED = 50;

export const load: PageServerLoad = async (event) => {
  const { searchParams } = event.url;
  const { picture, order, item } = screenState(event.url);
  const locals = localsOf(event);
  const { snapshot: view, crawl } = await crawlWithSnapshot(locals, 'words');
  const db = appDatabase();
  const index = await openTexts(db, crawl);
  if (!index && hasEnded(crawl)) await requestTexts(db, crawl.id);
  const wanted = Math.min(MOST_WANTED, Number(searchParams.get('wanted')) || LINKS_WANTED);
  const wordings = openWordings(view);
  const asked = { item, find: (searchParams.get('find') ?? '').trim() };
  const seen = picture === '' || picture === 'moves' ? await readFirstSeen(db, crawl.id) : null;
  const anchorsBy = { '': byTarget, words: byWords, page: byPage }[order] ?? byTarget;
  if (picture === 'search') await readTexts(view);
  return {
    answer: wordsAnswer(view, index, wanted, [...wordings.values()].flat()),
    progress: index ? null : await textsProgress(db, crawl.id),
    isIndexed: index !== null,
    wanted,
    find: asked.find,
    targets:
      picture === ''
        ? anchorsBy(view, wordings, asked, seen)
        : picture === 'moves'
          ? toMove(view, wordings, await dismissalsOf(db, crawl.siteId, 'wording'), asked, seen)
          : null,
    need: picture === 'places' ? inNeed(view, index, (await draftOver(locals))?.view ?? null, wanted, asked) : null,
    givers: picture === 'from' ? givers(view, asked) : null,
    sections: picture === 'sections' ? bySection(view) : null,
    search: picture === 'search' ? await searched(crawl, view, searchParams) : null,
  };
};
