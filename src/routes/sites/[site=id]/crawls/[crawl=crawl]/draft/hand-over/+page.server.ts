import { editText } from '$core/draft';
import { redirectsOf } from '$core/handOver';
import { originOf } from '$core/url';
import { handOverPages } from '$server/index';
import { crawlWithSnapshot, localsOf } from '../../../../../../crawl';
import { handOverFor } from '../../../../../../handOver';
import type { PageServerLoad } from './$types';

/** Pages that are shown; the files have all. */
const MOST_PAGES = 300;

export const load: PageServerLoad = async (event) => {
  const locals = localsOf(event);
  event.depends('draft');
  const { db } = await crawlWithSnapshot(locals, 'facts');
  const handOver = await handOverFor(locals);
  if (!handOver?.edits.length) return { shown: null };
  const pages = await handOverPages(db, handOver);
  return {
    shown: {
      edits: handOver.edits.length,
      done: handOver.edits.filter(({ done }) => done).length,
      total: pages.length,
      pages: pages.slice(0, MOST_PAGES).map((page) => ({
        ...page,
        edits: page.edits.map((edit) => ({
          id: edit.id,
          op: edit.op,
          text: editText(edit),
          value: edit.op === 'robots' ? edit.value : '',
          note: edit.note,
          done: edit.done,
          before: edit.before ?? null,
          after: edit.after ?? null,
          placed: edit.placed ?? false,
        })),
      })),
      redirects: redirectsOf(handOver.edits).length,
      robots: [...new Set(handOver.edits.filter(({ op }) => op === 'robots').map(({ source }) => originOf(source)))],
    },
  };
};
