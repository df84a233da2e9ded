import { draftAnswer, draftDepths, draftedPages, draftVerdicts } from '$core/answers';
import { editText } from '$core/draft';
import { sentence } from '$core/messages';
import { draftsOf } from '$server/index';
import { crawlWithSnapshot, draftOver } from '../../../../../crawl';
import type { PageServerLoad } from './$types';

const MOST_PAGES = 8;
const MOST_STEPS = 50;

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('draft');
  // Sends whoever asks for a crawl without a snapshot to watch it.
  const { db, crawl } = await crawlWithSnapshot(locals, 'facts');
  const [over, drafts] = await Promise.all([draftOver(locals), draftsOf(db, crawl.siteId)]);
  if (!over || over.draft.steps.length === 0) return { drafts, shown: null };
  const { draft, states } = over;
  const view = over.difference();
  const applied = states.filter(({ state }) => state === 'applied').length;
  return {
    drafts,
    shown: {
      answer: applied ? draftAnswer(view, applied) : [],
      edits: draft.edits.map((edit, i) => {
        const state = states[i];
        return {
          id: edit.id,
          op: edit.op,
          source: edit.source,
          text: editText(edit),
          note: edit.note,
          at: edit.at,
          on: edit.on,
          state: state.state,
          reason: state.state === 'refused' ? sentence(state.refusal) : null,
        };
      }),
      steps: draft.steps.slice(-MOST_STEPS).map(({ id, at, undone, step }) => ({
        id,
        at,
        undone,
        kind: step.kind,
        on: step.kind === 'switch' && step.on,
        edits: step.kind === 'note' ? 1 : step.edits.length,
      })),
      depths: draftDepths(view),
      verdicts: draftVerdicts(view),
      pages: draftedPages(view, MOST_PAGES),
    },
  };
};
