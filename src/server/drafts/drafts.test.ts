import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { editOf } from '$core/draft';
import { settingsSchema } from '$core/settings';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import { saveSite } from '../sites';
import { addDraft, changeDraft, currentDraft, deleteDraft, draftsOf, nameDraft, useDraft } from '.';

let test: TestDatabase;
let site: number;
let sites = 0;
beforeAll(async () => void (test = await testDatabase()));
afterAll(() => test.drop());
beforeEach(async () => {
  site = await saveSite(test.db, settingsSchema.parse({ start: `https://museum${++sites}.example/` }));
});

const noindex = (path: string) => editOf('noindex', `https://www.larkfield.example${path}`);
const add = (path: string, seen = 0) =>
  changeDraft(test.db, site, { step: { kind: 'add', edits: [noindex(path)] } }, seen);
const edits = async () =>
  (await currentDraft(test.db, site))!.edits.map(({ source, on, note }) => [new URL(source).pathname, on, note]);

describe('the current draft', () => {
  it('is there from the first edit on, undone and made again', async () => {
    expect(await currentDraft(test.db, site)).toBeNull();
    await add('/a');
    await add('/b', 1);
    expect(await edits()).toEqual([
      ['/a', true, ''],
      ['/b', true, ''],
    ]);
    expect(await changeDraft(test.db, site, { undo: true }, 2)).toBe(true);
    expect(await edits()).toEqual([['/a', true, '']]);
    expect(await changeDraft(test.db, site, { redo: true }, 3)).toBe(true);
    expect(await edits()).toHaveLength(2);
  });
  it('has edits that are switched off, annotated and removed', async () => {
    await add('/a');
    await add('/b');
    const [a, b] = (await currentDraft(test.db, site))!.edits;
    await changeDraft(test.db, site, { step: { kind: 'switch', edits: [a.id], on: false } }, 2);
    await changeDraft(test.db, site, { step: { kind: 'note', edit: b.id, note: 'ask the shop' } }, 3);
    expect(await edits()).toEqual([
      ['/a', false, ''],
      ['/b', true, 'ask the shop'],
    ]);
    await changeDraft(test.db, site, { step: { kind: 'remove', edits: [a.id] } }, 4);
    expect(await edits()).toEqual([['/b', true, 'ask the shop']]);
  });
  it('has notes on pages, which are changed, removed and copied with it', async () => {
    const note = (page: string, text: string) =>
      changeDraft(test.db, site, { step: { kind: 'page_note', page, note: text } }, 0);
    await note('/a', 'ask the shop');
    await note('/b', 'later');
    await note('/b', '');
    const draft = (await currentDraft(test.db, site))!;
    expect([...draft.notes]).toEqual([['/a', 'ask the shop']]);
    await addDraft(test.db, site, 'Copy', draft.id);
    expect([...(await currentDraft(test.db, site))!.notes]).toEqual([['/a', 'ask the shop']]);
  });
  it('has edits that are ticked off', async () => {
    await add('/a');
    const [a] = (await currentDraft(test.db, site))!.edits;
    await changeDraft(test.db, site, { step: { kind: 'tick', edits: [a.id], done: true } }, 1);
    expect((await currentDraft(test.db, site))!.edits[0].done).toBe(true);
  });
  it('loses no edit of two people at once, and tells the later one who would undo', async () => {
    await Promise.all([add('/a'), add('/b')]);
    expect((await edits()).map(([path]) => path).sort()).toEqual(['/a', '/b']);
    expect(await draftsOf(test.db, site)).toHaveLength(1);
    expect(await changeDraft(test.db, site, { undo: true }, 1)).toBe(false);
    expect(await edits()).toHaveLength(2);
  });
  it('forgets what was undone with the next step', async () => {
    await add('/a');
    await changeDraft(test.db, site, { undo: true }, 1);
    await add('/b');
    await changeDraft(test.db, site, { redo: true }, 3);
    expect(await edits()).toEqual([['/b', true, '']]);
  });
});

describe('drafts', () => {
  it('are kept, copied, named, used and deleted', async () => {
    await add('/a');
    const first = (await currentDraft(test.db, site))!;
    await changeDraft(test.db, site, { step: { kind: 'switch', edits: [first.edits[0].id], on: false } }, 1);
    await nameDraft(test.db, site, first.id, 'Winter');
    await addDraft(test.db, site, 'Copy', first.id);
    expect([(await currentDraft(test.db, site))!.name, await edits()]).toEqual(['Copy', [['/a', false, '']]]);
    await add('/b');
    expect(await useDraft(test.db, site, first.id)).toBe(true);
    expect([(await currentDraft(test.db, site))!.name, await edits()]).toEqual(['Winter', [['/a', false, '']]]);
    await deleteDraft(test.db, site, first.id);
    expect((await draftsOf(test.db, site)).map(({ name }) => name)).toEqual(['Copy']);
    expect(await useDraft(test.db, site, first.id)).toBe(false);
  });
  it('of another site are left alone', async () => {
    await add('/a');
    const { id } = (await currentDraft(test.db, site))!;
    const other = await saveSite(test.db, settingsSchema.parse({ start: 'https://other.example/' }));
    await deleteDraft(test.db, other, id);
    await nameDraft(test.db, other, id, 'Mine');
    expect(await useDraft(test.db, other, id)).toBe(false);
    expect((await currentDraft(test.db, site))!.name).toBe('');
  });
});
