import { draftAnswer, draftDepths, draftedPages, draftVerdicts, predictionOf } from '$core/answers';
import { editText } from '$core/draft';
import { sentence } from '$core/messages';
import { draftsOf, liveChecksOf } from '$server/index';
import { crawlWithSnapshot, draftOver, localsOf, predictionFor, siteOf } from '../../../../../crawl';
import type { PageServerLoad } from './$types';

const MOST_PAGES = 8;
const MOST_STEPS = 50;

export const load: PageServerLoad = async (event) => {
  const locals = localsOf(event);
  event.depends('draft');
  // Sends whoever asks for a crawl without a snapshot to watch it.
  const { db, crawl } = await crawlWithSnapshot(locals, 'facts');
  const { start } = siteOf(locals);
  const [over, drafts, prediction, checks] = await Promise.all([
    draftOver(locals),
    draftsOf(db, crawl.siteId),
    predictionFor(locals),
    liveChecksOf(db, crawl.siteId, 'edits', [start]),
  ]);
  if (!over || over.draft.steps.length === 0) return { drafts, shown: null };
  const { draft, states } = over;
  const check = checks.get(start);
  // What was looked at last counts.
  const isNewer = (check?.endedAt ?? 0) > (crawl.startedAt ?? crawl.createdAt).getTime();
  const checked = (isNewer && check?.result?.outcomes) || {};
  const view = over.difference();
  const applied = states.filter(({ state }) => state === 'applied').length;
  return {
    drafts,
    shown: {
      answer: applied ? draftAnswer(view, applied) : [],
      edits: draft.edits.map((edit, i) => {
        const { state, refusal, outcome } = states[i];
        const found = checked[edit.id] ?? outcome;
        return {
          id: edit.id,
          op: edit.op,
          source: edit.source,
          text: editText(edit),
          note: edit.note,
          at: edit.at,
          on: edit.on,
          state,
          refusal: refusal && sentence(refusal),
          outcome: found && { state: found.state, found: found.found && sentence(found.found) },
        };
      }),
      steps: draft.steps.slice(-MOST_STEPS).map(({ id, at, undone, step }) => ({
        id,
        at,
        undone,
        kind: step.kind,
        on: (step.kind === 'switch' && step.on) || (step.kind === 'tick' && step.done),
        edits: 'edits' in step ? step.edits.length : 1,
      })),
      notes: [...draft.notes],
      check: check ?? null,
      prediction: prediction && predictionOf(prediction.before, prediction.view),
      depths: draftDepths(view),
      verdicts: draftVerdicts(view),
      pages: draftedPages(view, MOST_PAGES),
    },
  };
};
