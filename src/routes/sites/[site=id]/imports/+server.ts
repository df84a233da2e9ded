import { error, json, text } from '@sveltejs/kit';
import { z } from 'zod';
import { csvPieces } from '$core/formats';
import { importKinds } from '$core/imports';
import { sentence } from '$core/messages';
import { settingsSchema } from '$core/settings';
import { appDatabase, getSite, importCrawl, importFile, previewFile, rejectsOf, removeImport } from '$server/index';
import { siteOf } from '../../../crawl';
import { idIn } from '../../../ids';
import { errorTexts } from '../../../texts';
import type { RequestHandler } from './$types';
import { isError } from '$core/errors';

const asked = z.object({
  kind: z.enum(importKinds),
  name: z.string().trim().min(1, errorTexts.sourceNeedsName).max(80, errorTexts.longName(80)),
  file: z.string().max(255).default(''),
  column: z.string().nullable().default(null),
  /** Whether it is only to be said how the file would be read, of its beginning. */
  preview: z.literal('1').optional(),
});

/** The settings of a site, which say what belongs to it. */
async function settingsOf(id: number) {
  return settingsSchema.parse((await getSite(appDatabase(), id))!.settings);
}

/** Makes a source of an earlier crawl of the site. */
async function takeCrawl(site: number, crawl: number) {
  const name = await importCrawl(appDatabase(), site, crawl).catch((thrown: unknown) => {
    throw isError(thrown, 'snapshot_version') ? error(409, errorTexts.olderCrawl) : thrown;
  });
  return name === null ? error(404, errorTexts.noSuchCrawl) : json({ name });
}

/**
 * Imports the file that is the body of the request: `?kind=list|log&name=…&file=…&column=…[&preview=1]`; or an earlier
 * crawl: `?crawl=…`.
 */
export const POST: RequestHandler = async ({ locals, request, url }) => {
  const { id } = siteOf(locals);
  if (url.searchParams.has('crawl')) return takeCrawl(id, idIn(url.searchParams, 'crawl', errorTexts.noSuchCrawl));
  const given = asked.safeParse(Object.fromEntries(url.searchParams));
  if (!given.success) error(400, given.error.issues[0].message);
  const { kind, name, file, column, preview } = given.data;
  const bytes = (request.body ?? new Blob([]).stream()) as unknown as AsyncIterable<Uint8Array>;
  const settings = await settingsOf(id);
  try {
    if (preview) return json(await previewFile(settings, bytes, { column }));
    const outcome = await importFile(
      appDatabase(),
      { id, settings },
      {
        kind,
        name,
        file,
        bytes,
        list: { column },
        crawlerAddresses: settings.crawlerAddresses.length ? settings.crawlerAddresses : null,
        signal: request.signal,
      },
    );
    return json(outcome);
  } catch (thrown) {
    if (isError(thrown, 'import')) error(400, thrown.message);
    throw thrown;
  }
};

/** The lines that were left out of an import, as CSV: `?id=…`. */
export const GET: RequestHandler = async ({ locals, url }) => {
  const { id } = siteOf(locals);
  const rejects = await rejectsOf(appDatabase(), id, idIn(url.searchParams, 'id', errorTexts.noSuchImport));
  if (!rejects) error(404, errorTexts.noSuchImport);
  const rows = [['line', 'reason'], ...rejects.map(({ line, reason }) => [line, sentence(reason)])];
  return text([...csvPieces(rows)].join(''), {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="rejected-lines.csv"',
    },
  });
};

/** Removes an import: `?id=…`. */
export const DELETE: RequestHandler = async ({ locals, url }) => {
  const asked = idIn(url.searchParams, 'id', errorTexts.noSuchImport);
  const isGone = await removeImport(appDatabase(), siteOf(locals).id, asked);
  return isGone ? json({}) : error(404, errorTexts.noSuchImport);
};
