import { error } from '@sveltejs/kit';
import { sitemapDifference, sitemapsOf } from '$core/formats';
import { LISTED } from '$core/sitemap';
import { originOf } from '$core/url';
import { getCrawl, lastmodsOf, orderedRows } from '$server/index';
import { crawlWithSnapshot } from '../../../../../crawl';
import { errorTexts } from '../../../../../texts';
import { readableList } from '../../../../../view';
import type { RequestHandler } from './$types';

/**
 * The sitemap of a selection of pages, `?select=…`; of all that should be listed without one. With `?difference`, how
 * it differs from what the sitemaps of the site list, as a unified diff.
 */
export const GET: RequestHandler = async ({ locals, url }) => {
  const view = { list: 'pages', select: url.searchParams.get('select') || LISTED, sort: 'url', by: 'section' } as const;
  const { db, crawl, snapshot } = await crawlWithSnapshot(locals, 'links');
  readableList(snapshot, view);
  const row = (await getCrawl(db, crawl.id))!;
  const pages = [...orderedRows(snapshot, view)];
  const lastmods = await lastmodsOf(db, row);
  if (url.searchParams.has('difference'))
    return new Response(sitemapDifference(snapshot, { pages, lastmods }), {
      headers: {
        'content-type': 'text/plain; charset=utf-8',
        'content-disposition': 'attachment; filename="sitemap.diff"',
      },
    });
  const { documents, listed } = sitemapsOf(snapshot, {
    pages,
    base: `${originOf(row.settings.start)}/`,
    lastmods,
    hreflang: true,
    gzip: false,
  });
  if (listed === 0) error(400, errorTexts.nothingToList);
  if (documents.length > 1) error(400, errorTexts.severalSitemaps(crawl.id));
  return new Response(documents[0].text, {
    headers: { 'content-type': 'application/xml', 'content-disposition': 'attachment; filename="sitemap.xml"' },
  });
};
