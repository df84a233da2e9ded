/** The commands that try changes of a site before anybody makes them. */
import { Option } from 'commander';
import type { Command } from 'commander';
import { shareModels } from '$core/share';
import type { ShareModel } from '$core/share';
import { wholeView } from '../options';
import type { Handlers, Runs } from './handlers';
import { crawlArgument, examples, exitCodes, usageCode } from './shared';

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
  reword_link               value has the new words
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
}
