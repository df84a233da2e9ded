import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { sitemapsOf } from '$core/formats';
import { orderRows, pageList } from '$core/lists';
import { thousands } from '$core/numbers';
import { evaluate } from '$core/selection';
import type { Selection } from '$core/selection';
import { sitemapChecker } from '$core/sitemap';
import { originOf } from '$core/url';
import { lastmodsOf } from '$server/index';
import type { Database } from '$server/index';
import { makeFolder } from './export';
import { finishedCrawl } from './finished';
import { faultLine } from './sitemapCheck';

export interface SitemapWriteCall {
  crawl: number;
  out: string;
  select: Selection;
  gzip: boolean;
  hreflang: boolean;
  /** Where the files will be published; the root of the start page when null. */
  base: string | null;
}

/** `edgemap sitemap write`: writes the sitemap of a selection, and checks it. @returns 1 when the check found faults */
export async function sitemapWriteCommand(db: Database, call: SitemapWriteCall): Promise<number> {
  const { row, snapshot } = await finishedCrawl(db, call.crawl);
  await makeFolder(call.out);
  const base = (call.base ?? `${originOf(row.settings.start)}/`).replace(/[^/]*$/, '');
  const list = pageList(snapshot, evaluate(snapshot, call.select));
  const { documents, listed, leftOut } = sitemapsOf(snapshot, {
    pages: [...orderRows(list, 'url', false)],
    base,
    lastmods: await lastmodsOf(db, row),
    hreflang: call.hreflang,
    gzip: call.gzip,
  });
  let faulty = 0;
  for (const { name, text } of documents) {
    const checker = sitemapChecker({ address: base + name, inIndex: name !== documents[0].name, now: Date.now() });
    checker.write(text);
    checker.size(Buffer.byteLength(text));
    const { faults } = checker.end();
    faulty += faults.length;
    for (const fault of faults) console.error(faultLine(name, fault));
    await writeFile(join(call.out, name), call.gzip ? await promisify(gzip)(text) : text);
  }
  const files = documents.length === 1 ? documents[0].name : `${documents.length} files`;
  console.error(
    `${thousands(listed)} ${listed === 1 ? 'address' : 'addresses'} written to ${join(call.out, documents.length === 1 ? files : '')}${documents.length === 1 ? '' : ` in ${files}`}.` +
      (leftOut
        ? ` ${thousands(leftOut)} left out: a sitemap in ${base} may not list ${leftOut === 1 ? 'it' : 'them'}.`
        : ''),
  );
  return faulty ? 1 : 0;
}
