import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { editOps, refusalsOf } from '$core/draft';
import type { Edit } from '$core/draft';
import { sentence } from '$core/messages';
import {
  addDraft,
  appDatabase,
  changeDraft,
  crawlState,
  currentDraft,
  deleteDraft,
  draftsOf,
  nameDraft,
  useDraft,
} from '$server/index';
import { bodyOf } from '../../../body';
import { draftableCrawl, siteOf } from '../../../crawl';
import { draftBrief } from '../../../draft';
import { anId } from '../../../ids';
import { errorTexts } from '../../../texts';
import type { RequestHandler } from './$types';

const MOST_EDITS = 5000;
const MOST_IN_DRAFT = 20_000;
const text = (most: number) => z.string().max(most, errorTexts.longText(most));

const edit = z.object({
  op: z.enum(editOps),
  source: text(8192).min(1, errorTexts.editNeedsSource),
  target: text(8192).default(''),
  anchor: text(2000).default(''),
  placement: text(10).default(''),
  value: text(1 << 20).default(''),
});
const ids = z.array(z.string().max(40)).max(MOST_IN_DRAFT);
const step = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('add'), edits: z.array(edit).min(1).max(MOST_EDITS, errorTexts.manyEdits(MOST_EDITS)) }),
  z.object({ kind: z.literal('switch'), edits: ids, on: z.boolean() }),
  z.object({ kind: z.literal('tick'), edits: ids, done: z.boolean() }),
  z.object({ kind: z.literal('remove'), edits: ids }),
  z.object({ kind: z.literal('note'), edit: z.string().max(40), note: text(2000) }),
  z.object({ kind: z.literal('page_note'), page: text(8192).min(1), note: text(2000) }),
]);
const name = z.string().trim().max(80, errorTexts.longName(80));
const asked = z.discriminatedUnion('do', [
  z.object({ do: z.literal('step'), step, crawl: anId, version: z.number() }),
  z.object({ do: z.literal('undo'), version: z.number() }),
  z.object({ do: z.literal('redo'), version: z.number() }),
  z.object({ do: z.literal('use'), id: anId }),
  z.object({ do: z.literal('name'), id: anId, name }),
  z.object({ do: z.literal('add'), name, copyOf: anId.nullable() }),
  z.object({ do: z.literal('delete'), id: anId }),
]);

/** Refuses edits that cannot be made in the current draft over a crawl, with the reason of the first. */
async function check(siteId: number, crawlId: number, edits: readonly Edit[]): Promise<void> {
  const db = appDatabase();
  const crawl = await crawlState(db, crawlId);
  if (!crawl || crawl.siteId !== siteId || crawl.deletedAt) error(404, errorTexts.noSuchCrawl);
  const over = await draftableCrawl(crawl);
  if (!over) error(409, errorTexts.crawlNotDraftable);
  const known = (await currentDraft(db, siteId))?.edits ?? [];
  if (known.length + edits.length > MOST_IN_DRAFT) error(400, errorTexts.draftIsFull(MOST_IN_DRAFT));
  const refusals = refusalsOf(over, known, edits).filter((refusal) => refusal !== null);
  if (refusals.length) error(400, errorTexts.refusedEdits(sentence(refusals[0]), refusals.length, edits.length));
}

/** How the current draft of the site stands, for whoever looks whether another person has changed it. */
export const GET: RequestHandler = async ({ locals }) =>
  json(draftBrief(await currentDraft(appDatabase(), siteOf(locals).id)));

/** Changes the current draft, or which one is current. */
export const POST: RequestHandler = async ({ locals, request }) => {
  const db = appDatabase();
  const { id } = siteOf(locals);
  const call = await bodyOf(request, asked);
  switch (call.do) {
    case 'step':
      if (call.step.kind === 'add') await check(id, call.crawl, call.step.edits);
      await changeDraft(db, id, { step: call.step }, call.version);
      break;
    case 'undo':
    case 'redo': {
      const change = call.do === 'undo' ? ({ undo: true } as const) : ({ redo: true } as const);
      if (!(await changeDraft(db, id, change, call.version))) error(409, errorTexts.draftHasChanged);
      break;
    }
    case 'use':
      if (!(await useDraft(db, id, call.id))) error(404, errorTexts.noSuchDraft);
      break;
    case 'name':
      await nameDraft(db, id, call.id, call.name);
      break;
    case 'add':
      await addDraft(db, id, call.name, call.copyOf);
      break;
    case 'delete':
      await deleteDraft(db, id, call.id);
  }
  return json({ ...draftBrief(await currentDraft(db, id)), drafts: await draftsOf(db, id) });
};
