import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { dossierOf, routeWithout } from '$core/answers';
import type { PageDossier } from '$core/answers';
import { readers } from '$core/reach';
import { addressAt, pageOf } from '$core/snapshot';
import { crawlSettings, findingsOfPage, openReport, orderedRows, pageDetails } from '$server/index';
import { crawlWithSnapshot } from '../../../../../crawl';
import { viewOf } from '../../../../../view';
import type { RequestHandler } from './$types';

const query = z.object({
  page: z.string(),
  reader: z.enum(readers).default('visitor'),
  /** A page to go without: only the route that is left is dossier. */
  without: z.string().optional(),
});

/** The dossier of one page, `?page=address&reader=…`, and its neighbours in the list that the query of a view asks for. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { db, crawl, snapshot } = await crawlWithSnapshot(locals, 'links');
  const { reader, without } = asked.data;
  const page = pageOf(snapshot, asked.data.page);
  if (page < 0) error(404, 'This crawl does not know the page.');
  if (without !== undefined) {
    const gone = pageOf(snapshot, without);
    if (gone < 0) error(404, 'This crawl does not know the page to go without.');
    return json({ route: routeWithout(snapshot, page, gone, reader) });
  }
  const { view } = viewOf(url.searchParams);
  const order = view.list === 'pages' ? orderedRows(snapshot, view) : new Uint32Array(0);
  const place = order.indexOf(page);
  const addressOf = (at: number) => (at >= 0 && at < order.length ? addressAt(snapshot, order[at]) : null);
  const [report, found, details, { weights }] = await Promise.all([
    openReport(db, crawl),
    findingsOfPage(db, crawl, page),
    pageDetails(db, crawl, asked.data.page),
    crawlSettings(db, crawl.id),
  ]);
  const dossier: PageDossier = {
    ...dossierOf(snapshot, page, reader, weights),
    ...details,
    findings: (report?.findings ?? [])
      .filter(({ id }) => found.includes(id))
      .map(({ id, name, over, select, rule, remedy, question, worthALook }) => ({
        ...{ id, name, over, select, rule, remedy, question, worthALook },
      })),
    place:
      place < 0 ? null : { at: place + 1, of: order.length, before: addressOf(place - 1), after: addressOf(place + 1) },
  };
  return json(dossier);
};
