/** The commands about words: what links say, and where links could be added. */
import { Option } from 'commander';
import type { Command } from 'commander';
import { LEAST_SCORE } from '$core/places';
import { asAtLeastOne, asScore, asSelection, asUrl } from '../options';
import type { ViewOptions } from '../options';
import type { Handlers, Runs } from './handlers';
import { crawlArgument, examples, exitCodes, usageCode } from './shared';

interface SuggestGiven {
  to?: string;
  from?: string;
  all?: ViewOptions['select'];
  limit: number;
  code?: true;
  least: number;
  out?: string;
}

export function addWordsCommands(program: Command, handlers: Handlers, runs: Runs): void {
  program
    .command('anchors')
    .description('write what the links to each page say: anchors.csv')
    .addArgument(crawlArgument('<crawl>', 'number of the crawl'))
    .requiredOption('--out <folder>', 'folder for anchors.csv')
    .addHelpText('after', examples('anchors 12 --out result'))
    .addHelpText('after', exitCodes('0  the file is written', '1  it could not be written', usageCode))
    .action(runs((crawl: number, { out }: { out: string }) => handlers.anchors({ crawl, out })));

  program
    .command('suggest')
    .description('write sentences that mention a page and do not link to it, the best places for a link first')
    .addArgument(crawlArgument('<crawl>', 'number of the crawl'))
    .addOption(new Option('--to <url>', 'places for links to this page').argParser(asUrl))
    .addOption(new Option('--from <url>', 'places on this page for links to any other').argParser(asUrl))
    .addOption(
      new Option('--all <selection>', 'places for links to each page of a selection, as "orphan"').argParser(
        asSelection,
      ),
    )
    .option('--limit <n>', 'so many places at most for each target, or for the source', asAtLeastOne, 20)
    .option('--code', 'words in code count too, for sites that name things there')
    .option('--least <score>', 'no places with a lower score, from 0 to 1', asScore, LEAST_SCORE)
    .option('--out <file>', 'write to a file instead of the terminal')
    .addHelpText(
      'after',
      examples('suggest 12 --to https://www.example.org/stories/depot', 'suggest 12 --all "orphan"'),
    )
    .addHelpText('after', exitCodes('0  the places are written', '1  the crawl cannot be read', usageCode))
    .action(
      runs((crawl: number, { to, from, all, limit, code, least, out }: SuggestGiven) =>
        handlers.suggest({
          crawl,
          to: to ?? null,
          from: from ?? null,
          all: all ?? null,
          limit,
          out: out ?? null,
          least,
          inCode: code ?? false,
        }),
      ),
    );
}
