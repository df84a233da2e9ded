import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { sitemapsOf } from '$core/formats';
import { orderRows, pageList } from '$core/lists';
import { sentence } from '$core/messages';
import { thousands } from '$core/numbers';
import { evaluate } from '$core/selection';
import type { Selection } from '$core/selection';
import { sitemapChecker } from '$core/sitemap';
import { originOf } from '$core/url';
import { checkSitemaps } from '$crawl/index';
import type { CheckedSitemap } from '$crawl/index';
import { lastmodsOf } from '$server/index';
import type { Database } from '$server/index';
import { finishedCrawl, makeFolder } from './export';

const faultLine = (address: string, { line, column, id, message }: CheckedSitemap['faults'][number]) =>
  `${address}:${line}:${column} ${id} ${sentence(message)}`;

/** `edgemap sitemap check`: prints the faults of a sitemap, and of those that it names. @returns 1 when there are any */
export async function sitemapCheckCommand({ source, json }: { source: string; json: boolean }): Promise<number> {
  const files: object[] = [];
  let faulty = 0;
  for await (const { address, kind, entries, faults } of checkSitemaps(source)) {
    faulty += faults.length;
    if (json) {
      const said = faults.map(({ line, column, id, message }) => ({ line, column, id, message: sentence(message) }));
      files.push({ address, kind, entries, faults: said });
    } else for (const fault of faults) process.stdout.write(`${faultLine(address, fault)}\n`);
  }
  if (json) process.stdout.write(`${JSON.stringify({ files }, null, 2)}\n`);
  return faulty ? 1 : 0;
}

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
