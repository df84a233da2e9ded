/** The commands that try changes of a site before anybody makes them. */
import { Option } from 'commander';
import type { Command } from 'commander';
import { shareModels } from '$core/share';
import type { ShareModel } from '$core/share';
import { asAtLeastOne, asSelection, wholeView } from '../options';
import type { ViewOptions } from '../options';
import type { Handlers, Runs } from './handlers';
import { crawlArgument, examples, exitCodes, selectOption, usageCode } from './shared';

interface PlanGiven {
  within: number;
  maxNewLinks?: number;
  select: ViewOptions['select'];
  out: string;
}
const indexable = asSelection('indexable');

export function addDraftCommands(program: Command, handlers: Handlers, runs: Runs): void {
  program
    .command('draft')
    .description('write what edits of a site would change: verdict, depth, reach, share and linking pages')
    .addArgument(crawlArgument('<crawl>', 'number of the crawl that is edited'))
    .argument('<edits>', 'CSV file with the columns op, source, target, anchor, placement and value')
    .requiredOption('--out <folder>', 'folder for draft.csv and summary.json')
    .addOption(
      new Option('--share-model <model>', 'how share is worked out').choices(shareModels).default(wholeView.shareModel),
    )
    .addHelpText(
      'after',
      `
Operations:
  add_link, remove_link     on source, to target; without anchor, remove_link takes all links of the pair
  reword_link               value has the new words; of retarget_link, the new target
  add_page                  source is the address, value the title
  remove_page               value is 404 (the default) or 410
  move_page                 source moves to target and redirects there; value "links" corrects links to it
  redirect, canonical       source names target; canonical without target removes it
  noindex, index            sets or removes noindex; nofollow and follow likewise
  robots                    value is the text of the robots.txt of the host of source
A source may be a pattern with *, for all pages that it matches.`,
    )
    .addHelpText('after', examples('draft 12 edits.csv --out result'))
    .addHelpText(
      'after',
      exitCodes('0  the files are written', '1  they could not be written', `${usageCode}, or a row cannot be applied`),
    )
    .action(
      runs((crawl: number, file: string, { out, shareModel }: { out: string; shareModel: ShareModel }) =>
        handlers.draft({ crawl, file, out, shareModel }),
      ),
    );

  program
    .command('plan')
    .description('write the fewest new links that bring pages within some clicks of the start page')
    .addArgument(crawlArgument('<crawl>', 'number of the crawl'))
    .requiredOption('--within <n>', 'clicks from the start page', asAtLeastOne)
    .option('--max-new-links <n>', 'new links that one page may get', asAtLeastOne)
    .addOption(selectOption().default(indexable, '"indexable"'))
    .requiredOption('--out <file>', 'CSV file for the edits, as ./edgemap draft reads them')
    .addHelpText(
      'after',
      examples('plan 12 --within 3 --max-new-links 5 --out edits.csv', 'draft 12 edits.csv --out result'),
    )
    .addHelpText('after', exitCodes('0  the plan is written', '1  the crawl cannot be read', usageCode))
    .action(
      runs((crawl: number, { within, maxNewLinks, select, out }: PlanGiven) =>
        handlers.plan({ crawl, within, maxNewLinks: maxNewLinks ?? null, select, out }),
      ),
    );
}
