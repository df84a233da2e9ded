/** The commands about sitemaps. */
import type { Command } from 'commander';
import { LISTED } from '$core/sitemap';
import { asSelection, asUrl } from '../options';
import type { ViewOptions } from '../options';
import type { Handlers, Runs } from './handlers';
import { crawlArgument, examples, exitCodes, selectOption, usageCode } from './shared';

/** As commander gathers them. */
interface SitemapGiven {
  out: string;
  select: ViewOptions['select'];
  gzip?: true;
  hreflang?: true;
  base?: string;
}
const listedByDefault = asSelection(LISTED);

export function addSitemapCommands(program: Command, handlers: Handlers, runs: Runs): void {
  const sitemap = program.command('sitemap').description('check a sitemap, or write one');
  sitemap
    .command('check')
    .description('print the faults of a sitemap, and of those that it names when it is an index')
    .argument('<source>', 'an address, or a file')
    .option('--json', 'print JSON')
    .addHelpText(
      'after',
      examples('sitemap check https://www.example.org/sitemap.xml', 'sitemap check sitemap.xml.gz --json'),
    )
    .addHelpText('after', exitCodes('0  there are no faults', '1  there are faults', usageCode))
    .action(
      runs((source: string, { json }: { json?: true }) => handlers.sitemapCheck({ source, json: json ?? false })),
    );
  sitemap
    .command('write')
    .description('write the sitemap of a crawl')
    .addArgument(crawlArgument('<crawl>', 'number of the crawl'))
    .requiredOption('--out <folder>', 'folder for the files')
    .addOption(selectOption().default(listedByDefault, `"${LISTED}"`))
    .option('--gzip', 'compress the files')
    .option('--hreflang', 'name the editions of pages in other languages')
    .option('--base <url>', 'the folder in which the files will be published; the root of the site without it', asUrl)
    .addHelpText(
      'after',
      examples(
        'sitemap write 12 --out result --gzip',
        'sitemap write 12 --out result --select "indexable and section = \\"shop\\""',
      ),
    )
    .addHelpText('after', exitCodes('0  the files are written', '1  they are written and have faults', usageCode))
    .action(
      runs((crawl: number, given: SitemapGiven) =>
        handlers.sitemapWrite({
          crawl,
          out: given.out,
          select: given.select,
          gzip: given.gzip ?? false,
          hreflang: given.hreflang ?? false,
          base: given.base ?? null,
        }),
      ),
    );
}
