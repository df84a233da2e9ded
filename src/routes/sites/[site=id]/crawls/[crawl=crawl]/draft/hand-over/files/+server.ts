import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { editsCsv } from '$core/formats';
import {
  handOverCsv,
  handOverHtml,
  handOverMarkdown,
  redirectsApache,
  redirectsCsv,
  redirectsNginx,
  redirectsOf,
  unifiedDiff,
} from '$core/handOver';
import { originOf } from '$core/url';
import { appDatabase, editedFiles, handOverPages, MOST_FILES } from '$server/index';
import { siteOf } from '../../../../../../../crawl';
import { handOverFor } from '../../../../../../../handOver';
import { errorTexts } from '../../../../../../../texts';
import type { RequestHandler } from './$types';

const formats = ['markdown', 'csv', 'html', 'diff', 'robots', 'edits', 'redirects', 'nginx', 'apache'] as const;
type Format = (typeof formats)[number];
const query = z.object({ format: z.enum(formats), open: z.string().optional(), of: z.string().optional() });

const files: Record<Format, { name: string; type: string }> = {
  markdown: { name: 'changes.md', type: 'text/markdown' },
  csv: { name: 'changes.csv', type: 'text/csv' },
  html: { name: 'changes.html', type: 'text/html' },
  diff: { name: 'changes.diff', type: 'text/x-diff' },
  robots: { name: 'robots.txt', type: 'text/plain' },
  edits: { name: 'edits.csv', type: 'text/csv' },
  redirects: { name: 'redirects.csv', type: 'text/csv' },
  nginx: { name: 'redirects.nginx.conf', type: 'text/plain' },
  apache: { name: 'redirects.apache.conf', type: 'text/plain' },
};

/**
 * The edits of the current draft that count and are not on the website yet, as a file: `?format=…`, with `open` only
 * those that nobody has ticked off; of robots.txt that of the origin `of`.
 */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const { format, open, of } = asked.data;
  const handOver = await handOverFor(locals);
  if (!handOver) error(404, errorTexts.noSuchDraft);
  const { name } = handOver;
  const edits = handOver.edits.filter(({ done }) => open === undefined || !done);
  const db = appDatabase();
  const pages = () => handOverPages(db, { ...handOver, edits });
  const redirects = redirectsOf(edits);
  const diff = async () => {
    const edited = await editedFiles(db, { ...handOver, edits });
    return edited ? unifiedDiff(edited) : error(400, errorTexts.manyFiles(MOST_FILES));
  };
  const robots = () => {
    const origin = of ?? originOf(siteOf(locals).start);
    const edit = edits.findLast(({ op, source }) => op === 'robots' && originOf(source) === origin);
    return edit?.value ?? error(404, errorTexts.noRobotsEdit);
  };
  const text: Record<Format, () => string | Promise<string>> = {
    markdown: async () => handOverMarkdown(await pages(), name),
    csv: async () => [...handOverCsv(await pages())].join(''),
    html: async () => handOverHtml(await pages(), name),
    diff,
    robots,
    edits: () => [...editsCsv(edits)].join(''),
    redirects: () => [...redirectsCsv(redirects)].join(''),
    nginx: () => redirectsNginx(redirects),
    apache: () => redirectsApache(redirects),
  };
  const { name: file, type } = files[format];
  return new Response(await text[format](), {
    headers: { 'content-type': `${type}; charset=utf-8`, 'content-disposition': `attachment; filename="${file}"` },
  });
};
