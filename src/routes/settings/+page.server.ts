import { error, fail, redirect } from '@sveltejs/kit';
import { addressAt } from '$core/snapshot';
import { noSecrets, readSettingsFile, settingsSchema } from '$core/settings';
import { readStartAddress } from '$core/url';
import { crawlPath } from '$lib/shell/routes';
import { leavesList, MOST_SHOWN, readList } from '$lib/settings/listField';
import { readSecrets, secretsStored } from '$lib/settings/secretFields';
import { readSettingsForm, typedOf } from '$lib/settings/settingsForm';
import type { Faults } from '$lib/settings/settingsForm';
import {
  addCrawl,
  appDatabase,
  crawlsOf,
  getSite,
  importedAddresses,
  importsOf,
  openSnapshot,
  saveList,
  saveSite,
  secretsOf,
  SETTINGS_LIST,
  siteByStart,
  siteNames,
} from '$server/index';
import type { Database, Site } from '$server/index';
import type { Actions, PageServerLoad } from './$types';
import { errorTexts } from '../texts';
import { isError } from '$core/errors';

/** Addresses that patterns are tried on. */
const MOST_KNOWN = 5000;

/**
 * The list of known URLs of a site as it stands in its field, or how many there are when they are too many for that.
 */
async function listOfSite(db: Database, site: Site | undefined): Promise<{ text: string; hidden: number }> {
  const imports = site ? (await importsOf(db, site.id)).filter(({ name }) => name === SETTINGS_LIST) : [];
  const total = imports.reduce((sum, { urls }) => sum + urls, 0);
  if (total > MOST_SHOWN) return { text: '', hidden: total };
  const addresses: string[] = [];
  for await (const part of importedAddresses(
    db,
    imports.map(({ id }) => id),
  ))
    addresses.push(...part);
  return { text: addresses.join('\n'), hidden: 0 };
}

/** What the newest crawl of a site knows, for the tester of patterns. */
async function knownAddresses(db: Database, site: Site | undefined) {
  const ended = site && (await crawlsOf(db, site.id)).find(({ state }) => state === 'done' || state === 'stopped');
  // A crawl that another version has analysed is only not shown here.
  const snapshot = ended
    ? await openSnapshot(db, ended, 'facts').catch((error: unknown) => {
        if (isError(error, 'snapshot_version')) return null;
        throw error;
      })
    : null;
  if (!snapshot) return { known: [], more: false, newest: ended?.id ?? null };
  const known = Array.from({ length: Math.min(snapshot.count, MOST_KNOWN) }, (_, page) => addressAt(snapshot, page));
  return { known, more: snapshot.count > MOST_KNOWN, newest: ended!.id };
}

/** The site that a part of the query names by its number; none when the part is missing. */
async function ofSite(db: Database, id: string | null): Promise<Site | undefined> {
  if (id === null || id === '') return undefined;
  const site = /^\d{1,9}$/.test(id) ? await getSite(db, Number(id)) : undefined;
  return site ?? error(404, errorTexts.noSuchSite);
}

/** `?site=` shows the settings of a site, `?like=` those of another to begin with, `?start=` a new address. */
export const load: PageServerLoad = async ({ url }) => {
  const db = appDatabase();
  const given = readStartAddress(url.searchParams.get('start') ?? '');
  const site =
    (await ofSite(db, url.searchParams.get('site'))) ?? (given.ok ? await siteByStart(db, given.address) : undefined);
  const like = await ofSite(db, url.searchParams.get('like'));
  const model = like ?? site;
  const listed = await listOfSite(db, model);
  const start = site?.start ?? url.searchParams.get('start') ?? '';
  return {
    site: site && { id: site.id, start: site.start },
    like: like?.start ?? null,
    typed: { ...typedOf(model?.settings ?? settingsSchema.parse({ start: '' })), start, lists: listed.text },
    stored: secretsStored(site ? secretsOf(site) : noSecrets),
    sites: await siteNames(db),
    hidden: listed.hidden,
    ...(await knownAddresses(db, site)),
  };
};

/** Reads the form and stores the site; what is wrong is said field by field. */
async function save(request: Request) {
  const db = appDatabase();
  const form = await request.formData();
  const read = readSettingsForm(form, (given) => settingsSchema.safeParse(given));
  const site = read.ok ? await siteByStart(db, read.settings.start) : undefined;
  const faults: Faults = read.ok ? {} : read.faults;
  const secrets = readSecrets(form, site ? secretsOf(site) : noSecrets, faults);
  const list = readList(form, faults);
  const lists = String(form.get('lists') ?? '');
  if (!read.ok) return { failure: fail(400, { faults, typed: { ...read.typed, lists } }) };
  if (Object.keys(faults).length)
    return { failure: fail(400, { faults, typed: { ...typedOf(read.settings), lists } }) };
  const siteId = await saveSite(db, read.settings, secrets);
  if (!leavesList(form)) await saveList(db, siteId, SETTINGS_LIST, list);
  return { db, settings: read.settings, siteId };
}

const MAX_FILE = 8 << 20;

export const actions: Actions = {
  save: async ({ request }) => {
    const saved = await save(request);
    if ('failure' in saved) return saved.failure;
    redirect(303, `/settings?site=${saved.siteId}&saved=yes`);
  },
  crawl: async ({ request }) => {
    const saved = await save(request);
    if ('failure' in saved) return saved.failure;
    redirect(303, `${crawlPath(saved.siteId, await addCrawl(saved.db, saved.siteId, saved.settings))}/watch`);
  },
  import: async ({ request }) => {
    const file = (await request.formData()).get('file');
    if (!(file instanceof File) || file.size === 0) return fail(400, { notice: errorTexts.chooseFile });
    if (file.size > MAX_FILE) return fail(400, { notice: errorTexts.fileTooLarge });
    const read = readSettingsFile(await file.text());
    if (!read.ok) return fail(400, { notice: read.message });
    return {
      typed: { ...typedOf(read.settings), lists: read.lists.join('\n') },
      notice: errorTexts.settingsFilledIn(file.name),
    };
  },
};
