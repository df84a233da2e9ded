import { sentence } from '$core/messages';
// Past the index of the folder, which would load crawling and the database.
import { checkSitemaps } from '$crawl/sitemapCheck';
import type { CheckedSitemap } from '$crawl/sitemapCheck';

/** A fault as the terminal prints it: `file:line:column id message`. */
export const faultLine = (address: string, { line, column, id, message }: CheckedSitemap['faults'][number]) =>
  `${address}:${line}:${column} ${id} ${sentence(message)}`;

/**
 * `edgemap sitemap check`: prints the faults of a sitemap, and of those that it names.
 * @returns 1 when there are any
 */
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
