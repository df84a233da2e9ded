import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { dossierOf, routeOf, routeWithout } from '$core/answers';
import type { DossierLink, PageDossier } from '$core/answers';
import { linkAt, linkReason, pageEvidence } from '$core/findings';
import type { Found } from '$core/findings';
import { readers } from '$core/reach';
import { hasBit } from '$core/selection';
import { addressAt, pageOf } from '$core/snapshot';
import type { View } from '$core/view';
import { crawlSettings, currentDraft, hitsOfPage, orderedRows, pageDetails, selectLinks } from '$server/index';
import { beforeOf, crawlWithSnapshot, findingsFor, reportFor } from '../../../../../crawl';
import { viewOf } from '../../../../../view';
import type { RequestHandler } from './$types';
import { errorTexts } from '../../../../../texts';

const query = z.object({
  page: z.string(),
  reader: z.enum(readers).default('visitor'),
  /** A page to go without: only the route that is left is dossier. */
  without: z.string().optional(),
  /** Place of a link in the source of the page, `line:column`. */
  at: z.string().default(''),
});

/** The link at a place of a page, with what is wrong with it. */
function linkOf(snapshot: View, page: number, at: string, findings: readonly Found[]): DossierLink | null {
  const [line, column] = at.split(':').map(Number);
  const link = line > 0 && column > 0 ? linkAt(snapshot, page, line, column) : -1;
  if (link < 0) return null;
  const { links, phrases } = snapshot;
  const about = findings.filter(
    ({ over, select }) => over === 'links' && hasBit(selectLinks(snapshot, select).links, link),
  );
  return {
    target: addressAt(snapshot, links.target[link]),
    words: phrases[links.anchor[link]],
    findings: about.map(({ id, name, rule, remedy, worthALook }) => ({
      ...{ id, name, rule, remedy, worthALook },
      reason: linkReason(snapshot, id, link),
    })),
  };
}

/**
 * The dossier of one page, `?page=address&reader=…`, and its neighbours in the list that the query of a view asks for.
 */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { db, crawl, snapshot } = await crawlWithSnapshot(locals, 'links');
  const { reader, without } = asked.data;
  const page = pageOf(snapshot, asked.data.page);
  if (page < 0) error(404, errorTexts.unknownPage);
  if (without !== undefined) {
    const gone = pageOf(snapshot, without);
    if (gone < 0) error(404, errorTexts.unknownPageToGoWithout);
    return json({ route: routeWithout(snapshot, page, gone, reader) });
  }
  const { view } = viewOf(url.searchParams);
  const order = view.list === 'pages' ? orderedRows(snapshot, view) : new Uint32Array(0);
  const place = order.indexOf(page);
  const addressOf = (at: number) => (at >= 0 && at < order.length ? addressAt(snapshot, order[at]) : null);
  const [report, found, details, { weights }, hits, draft] = await Promise.all([
    reportFor(locals),
    findingsFor(locals, [page]).then(([ids]) => ids),
    pageDetails(db, crawl, asked.data.page),
    crawlSettings(db, crawl.id),
    hitsOfPage(db, snapshot.imports, page),
    currentDraft(db, crawl.siteId),
  ]);
  const old = beforeOf(locals, snapshot);
  const pageBefore = old ? pageOf(old, asked.data.page) : -1;
  const dossier: PageDossier = {
    ...dossierOf(snapshot, page, reader, weights),
    routeBefore: old && (pageBefore < 0 ? [] : routeOf(old, pageBefore, reader)),
    ...details,
    hits,
    note: draft?.notes.get(asked.data.page) ?? '',
    findings: (report?.findings ?? [])
      .filter(({ id }) => found.includes(id))
      .map(({ id, name, over, select, rule, remedy, question, worthALook }) => ({
        ...{ id, name, over, select, rule, remedy, question, worthALook },
        evidence: over === 'pages' ? pageEvidence(snapshot, select, page) : [],
      })),
    link: linkOf(snapshot, page, asked.data.at, report?.findings ?? []),
    place:
      place < 0 ? null : { at: place + 1, of: order.length, before: addressOf(place - 1), after: addressOf(place + 1) },
  };
  return json(dossier);
};
