import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { noSecrets, settingsSchema } from '$core/settings';
import { testDatabase } from '../../../tests/support/database';
import type { TestDatabase } from '../../../tests/support/database';
import {
  addCrawl,
  deleteSelection,
  getCrawl,
  getSite,
  newestCrawls,
  savedSelections,
  saveSelection,
  saveSite,
  secretsOf,
  siteNames,
} from '..';
import { seal, unseal } from './secrets';

let test: TestDatabase;
beforeAll(async () => (test = await testDatabase()));
afterAll(() => test.drop());
const settingsOf = (start: string) => settingsSchema.parse({ start });

describe('sites', () => {
  it('are known by their start address and keep their newest settings', async () => {
    const settings = settingsOf('https://one.example/');
    const one = await saveSite(test.db, settings);
    expect(await saveSite(test.db, { ...settings, depth: 3 })).toBe(one);
    const first = await addCrawl(test.db, one, settings, 'test');
    const second = await addCrawl(test.db, one, settings, 'test');
    expect((await getSite(test.db, one))!.settings.depth).toBe(3);
    expect(await siteNames(test.db)).toContainEqual({ id: one, name: null, start: settings.start });
    expect((await newestCrawls(test.db)).filter(({ siteId }) => siteId === one).map(({ id }) => id)).toEqual([
      second,
      first,
    ]);
  });
  it('have lists of crawls that hold no settings, secrets or cookies', async () => {
    for (const crawl of await newestCrawls(test.db))
      for (const name of ['settings', 'secrets', 'cookies']) expect(crawl).not.toHaveProperty(name);
  });
});

describe('secrets', () => {
  const secrets = { headers: [{ name: 'X-Key', value: 'tram' }], cookie: '', basic: { user: 'u', password: 'päss' } };
  it('lie sealed in the database, go with every crawl, and are kept until others are given', async () => {
    const settings = settingsOf('https://secret.example/');
    const siteId = await saveSite(test.db, settings, secrets);
    await saveSite(test.db, settings);
    const row = (await getCrawl(test.db, await addCrawl(test.db, siteId, settings, 'test')))!;
    expect(row.secrets!.toString('latin1')).not.toContain('tram');
    expect(secretsOf(row)).toEqual(secrets);
    await saveSite(test.db, settings, noSecrets);
    expect(secretsOf((await getCrawl(test.db, await addCrawl(test.db, siteId, settings, 'test')))!)).toEqual(noSecrets);
  });
  it('cannot be read with another key', () => {
    const sealed = seal(secrets);
    sealed[sealed.length - 1] ^= 1;
    expect(() => unseal(sealed)).toThrow(/another key/);
  });
});

it('saves selections by name, one each, for one site', async () => {
  const siteId = await saveSite(test.db, settingsOf('https://selections.example/'));
  await saveSelection(test.db, siteId, { name: 'Deep', over: 'pages', text: 'depth > 3' });
  await saveSelection(test.db, siteId, { name: 'Broken', over: 'links', text: 'to (broken)' });
  await saveSelection(test.db, siteId, { name: 'Deep', over: 'pages', text: 'depth > 4' });
  expect(await savedSelections(test.db, siteId)).toEqual([
    { name: 'Broken', over: 'links', text: 'to (broken)' },
    { name: 'Deep', over: 'pages', text: 'depth > 4' },
  ]);
  expect(await savedSelections(test.db, siteId + 1)).toEqual([]);
  await deleteSelection(test.db, siteId, 'Deep');
  expect(await savedSelections(test.db, siteId)).toHaveLength(1);
});
