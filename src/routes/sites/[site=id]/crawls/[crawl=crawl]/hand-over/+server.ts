import { error } from '@sveltejs/kit';
import { z } from 'zod';
import {
  editsCsv,
  handOverCsv,
  handOverMarkdown,
  redirectsApache,
  redirectsCsv,
  redirectsNginx,
  redirectsOf,
} from '$core/formats';
import { draftOver, siteOf } from '../../../../../crawl';
import { errorTexts } from '../../../../../texts';
import type { RequestHandler } from './$types';

const formats = ['markdown', 'csv', 'edits', 'redirects', 'nginx', 'apache'] as const;
const query = z.object({ format: z.enum(formats) });

const files: Record<(typeof formats)[number], { name: string; type: string }> = {
  markdown: { name: 'changes.md', type: 'text/markdown' },
  csv: { name: 'changes.csv', type: 'text/csv' },
  edits: { name: 'edits.csv', type: 'text/csv' },
  redirects: { name: 'redirects.csv', type: 'text/csv' },
  nginx: { name: 'redirects.nginx.conf', type: 'text/plain' },
  apache: { name: 'redirects.apache.conf', type: 'text/plain' },
};

/** The edits of the current draft that count and are not on the website yet, as a file: `?format=…`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, asked.error.issues[0].message);
  const over = await draftOver(locals);
  if (!over) error(404, errorTexts.noSuchDraft);
  const edits = over.draft.edits.filter((_, i) => over.states[i].state === 'applied');
  const redirects = redirectsOf(edits);
  const { format } = asked.data;
  const text = {
    markdown: () => handOverMarkdown(edits, over.draft.name || new URL(siteOf(locals).start).host),
    csv: () => [...handOverCsv(edits)].join(''),
    edits: () => [...editsCsv(edits)].join(''),
    redirects: () => [...redirectsCsv(redirects)].join(''),
    nginx: () => redirectsNginx(redirects),
    apache: () => redirectsApache(redirects),
  }[format]();
  const { name, type } = files[format];
  return new Response(text, {
    headers: { 'content-type': `${type}; charset=utf-8`, 'content-disposition': `attachment; filename="${name}"` },
  });
};
