import { fail, redirect } from '@sveltejs/kit';
import { sentence } from '$core/messages';
import { editsOfOutline, readOutline } from '$core/outline';
import { settingsSchema } from '$core/settings';
import { readStartAddress } from '$core/url';
import { crawlPath } from '$lib/shell/routes';
import { addPlannedCrawl, appDatabase, changeDraft, saveSite } from '$server/index';
import type { Actions } from './$types';

/** Lines with faults that are told. */
const MOST_FAULTS = 20;

export const actions: Actions = {
  /** Begins a site that does not exist yet, with a draft that has its pages. */
  default: async ({ request }) => {
    const form = await request.formData();
    const [typed, outline] = ['start', 'outline'].map((name) => String(form.get(name) ?? ''));
    const start = readStartAddress(typed);
    if (!start.ok) return fail(400, { typed, outline, fault: start.message });
    const read = readOutline(outline, start.address);
    const faults = read.faults.slice(0, MOST_FAULTS).map(({ line, message }) => ({ line, text: sentence(message) }));
    const told = { typed, outline, pages: read.pages.length, faults, faultCount: read.faults.length };
    if (read.pages.length === 0) return fail(400, { ...told, fault: null });
    if (faults.length && !form.has('anyway')) return fail(400, { ...told, fault: null });
    const db = appDatabase();
    const settings = settingsSchema.parse({ start: start.address });
    const site = await saveSite(db, settings);
    const crawl = await addPlannedCrawl(db, site, settings);
    await changeDraft(db, site, { step: { kind: 'add', edits: editsOfOutline(read, start.address) } }, 0);
    redirect(303, `${crawlPath(site, crawl, 'drafted')}/draft`);
  },
};
