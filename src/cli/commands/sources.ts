/** The commands about what else knows the addresses of a site. */
import { Argument, Option } from 'commander';
import type { Command } from 'commander';
import { importKinds } from '$core/imports';
import type { ImportKind } from '$core/imports';
import { asStart } from '../options';
import type { Handlers, Runs } from './handlers';
import { crawlArgument, examples, exitCodes, usageCode } from './shared';

/** As commander gathers them. */
interface ImportGiven {
  as: ImportKind;
  name?: string;
  column?: string;
  rejects?: string;
  crawlers?: string;
}
export function addSourceCommands(program: Command, handlers: Handlers, runs: Runs): void {
  program
    .command('import')
    .description('import a list of addresses or an access log into a site')
    .addArgument(new Argument('<start>', 'start address of the site').argParser(asStart))
    .argument('<file>', 'CSV, TSV, XLSX, JSON lines, plain text or a log; may be compressed with gzip or Zstandard')
    .addOption(new Option('--as <kind>', 'what the file is').choices(importKinds).makeOptionMandatory())
    .option('--name <name>', 'what the source is called; the name of the file without it')
    .option('--column <column>', 'the column of a list that has the addresses, by name or number')
    .option('--rejects <file>', 'write the lines that are left out there, with the reasons')
    .option(
      '--crawlers <file>',
      'IP addresses and subnets of search crawlers, one per line; without it user agents tell',
    )
    .addHelpText(
      'after',
      examples(
        'import https://www.example.org/ access.log.gz --as log --name May',
        'import https://www.example.org/ pages.xlsx --as list --column "Landing page"',
      ),
    )
    .addHelpText('after', exitCodes('0  the file is imported', '1  nothing was imported', usageCode))
    .action(
      runs((start: string, file: string, given: ImportGiven) =>
        handlers.import({
          start,
          file,
          kind: given.as,
          name: given.name ?? null,
          column: given.column ?? null,
          rejects: given.rejects ?? null,
          crawlers: given.crawlers ?? null,
        }),
      ),
    );

  program
    .command('sources')
    .description('write agreement.csv and sources.csv: which sources know which addresses')
    .addArgument(crawlArgument('<crawl>', 'number of the crawl'))
    .requiredOption('--out <folder>', 'folder for the files')
    .addHelpText('after', examples('sources 12 --out result'))
    .addHelpText('after', exitCodes('0  the files are written', '1  they could not be written', usageCode))
    .action(runs((crawl: number, { out }: { out: string }) => handlers.sources({ crawl, out })));
}
