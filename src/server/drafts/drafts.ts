/** Drafts of changes to a site, as they are stored: each is what was done to it, step by step. */
import { and, asc, desc, eq, getTableColumns, sql } from 'drizzle-orm';
import { editsAfter, notesAfter } from '$core/draft';
import type { DraftEdit, MadeStep, Step } from '$core/draft';
import type { Database } from '../database';
import { draft, draftStep, site } from '../database/schema';

type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

export interface Draft {
  id: number;
  /** '' until a person gives it one. */
  name: string;
  version: number;
  edits: DraftEdit[];
  /** Notes on pages, by address. */
  notes: Map<string, string>;
  steps: MadeStep[];
}

/** The drafts of a site, the one that was used last first, which is the current one. */
export const draftsOf = (db: Database, siteId: number) =>
  db
    .select({ id: draft.id, name: draft.name, version: draft.version, createdAt: draft.createdAt })
    .from(draft)
    .where(eq(draft.siteId, siteId))
    .orderBy(desc(draft.usedAt), desc(draft.id));

async function withSteps(db: Database, row: Pick<Draft, 'id' | 'name' | 'version'>): Promise<Draft> {
  const steps = await db.select().from(draftStep).where(eq(draftStep.draftId, row.id)).orderBy(asc(draftStep.id));
  return { ...row, steps, edits: editsAfter(steps), notes: notesAfter(steps) };
}

/** The current draft of a site; null when nobody has begun one. */
export async function currentDraft(db: Database, siteId: number): Promise<Draft | null> {
  const [row] = await draftsOf(db, siteId).limit(1);
  return row ? withSteps(db, row) : null;
}

/** One draft of a site; null when it has no such draft. */
export async function draftOfSite(db: Database, siteId: number, id: number): Promise<Draft | null> {
  const [row] = await db
    .select({ id: draft.id, name: draft.name, version: draft.version })
    .from(draft)
    .where(ofSite(siteId, id));
  return row ? withSteps(db, row) : null;
}

/** What can be done to a draft besides making a step. */
export type DraftChange = { step: Step } | { undo: true } | { redo: true };

const ofSite = (siteId: number, id: number) => and(eq(draft.siteId, siteId), eq(draft.id, id));

/** Counts up the version of a draft. */
const countUp = (tx: Transaction, id: number) =>
  tx
    .update(draft)
    .set({ version: sql`${draft.version} + 1`, usedAt: sql`utc_timestamp(3)` })
    .where(eq(draft.id, id));

/** The current draft of a site, which is begun when there is none. Nobody else changes it until the end. */
async function lockedDraft(tx: Transaction, siteId: number): Promise<{ id: number; version: number }> {
  // The row of the site, since there may be no draft yet.
  await tx.select({ id: site.id }).from(site).where(eq(site.id, siteId)).for('update');
  const [row] = await tx
    .select({ id: draft.id, version: draft.version })
    .from(draft)
    .where(eq(draft.siteId, siteId))
    .orderBy(desc(draft.usedAt), desc(draft.id))
    .limit(1);
  if (row) return row;
  const [{ id }] = await tx.insert(draft).values({ siteId }).$returningId();
  return { id, version: 0 };
}

/**
 * Changes the current draft of a site. A step is made whatever others have done meanwhile, as it loses nothing of
 * theirs; undoing and redoing is refused to those who have not seen the last version.
 * @param seen the version that the person sees; 0 where there was no draft
 * @returns false when it was refused
 */
export const changeDraft = (db: Database, siteId: number, change: DraftChange, seen: number): Promise<boolean> =>
  db.transaction(async (tx) => {
    const { id, version } = await lockedDraft(tx, siteId);
    if ('step' in change) {
      // What was undone before a new step is gone.
      await tx.delete(draftStep).where(and(eq(draftStep.draftId, id), eq(draftStep.undone, true)));
      await tx.insert(draftStep).values({ draftId: id, siteId, step: change.step });
    } else {
      if (version !== seen) return false;
      const undo = 'undo' in change;
      const [step] = await tx
        .select({ id: draftStep.id })
        .from(draftStep)
        .where(and(eq(draftStep.draftId, id), eq(draftStep.undone, !undo)))
        .orderBy(undo ? desc(draftStep.id) : asc(draftStep.id))
        .limit(1);
      if (!step) return true;
      await tx.update(draftStep).set({ undone: undo }).where(eq(draftStep.id, step.id));
    }
    await countUp(tx, id);
    return true;
  });

/** Makes a draft the current one. @returns false when the site has no such draft */
export async function useDraft(db: Database, siteId: number, id: number): Promise<boolean> {
  // Later than all, even where another one was used within the same millisecond.
  const last = sql`(select max(used_at) from (select used_at from draft where site_id = ${siteId}) as used)`;
  const [{ affectedRows }] = await db
    .update(draft)
    .set({ usedAt: sql`greatest(utc_timestamp(3), ${last} + interval 1000 microsecond)` })
    .where(ofSite(siteId, id));
  return affectedRows > 0;
}

export const nameDraft = async (db: Database, siteId: number, id: number, name: string): Promise<void> =>
  void (await db.update(draft).set({ name }).where(ofSite(siteId, id)));

/** Begins a draft, with what another one has where one is named, and makes it the current one. */
export const addDraft = (db: Database, siteId: number, name: string, copyOf: number | null): Promise<void> =>
  db.transaction(async (tx) => {
    const steps = copyOf
      ? await tx
          .select(getTableColumns(draftStep))
          .from(draftStep)
          .innerJoin(draft, eq(draft.id, draftStep.draftId))
          .where(and(ofSite(siteId, copyOf), eq(draftStep.undone, false)))
          .orderBy(asc(draftStep.id))
      : [];
    const [{ id }] = await tx.insert(draft).values({ siteId, name }).$returningId();
    const edits = editsAfter(steps);
    // Steps name edits by the numbers of other steps, so a copy has the edits themselves.
    const add = async (step: Step) =>
      (await tx.insert(draftStep).values({ draftId: id, siteId, step }).$returningId())[0].id;
    const added = edits.length ? await add({ kind: 'add', edits }) : 0;
    const off = edits.flatMap(({ on }, i) => (on ? [] : [`${added}.${i}`]));
    if (off.length) await add({ kind: 'switch', edits: off, on: false });
    for (const [page, note] of notesAfter(steps)) await add({ kind: 'page_note', page, note });
  });

export const deleteDraft = (db: Database, siteId: number, id: number): Promise<void> =>
  db.transaction(async (tx) => {
    const own = await tx.select({ id: draft.id }).from(draft).where(ofSite(siteId, id));
    if (own.length === 0) return;
    await tx.delete(draftStep).where(eq(draftStep.draftId, id));
    await tx.delete(draft).where(ofSite(siteId, id));
  });
