/** What several commands have in common: arguments, options, and the end of their help. */
import { Argument, Command, Option } from 'commander';
import { shareModels } from '$core/share';
import { asCrawlNumber, asSelection, asSort, wholeView } from '../options';
import type { ViewOptions } from '../options';

export const crawlArgument = (name: string, about: string) => new Argument(name, about).argParser(asCrawlNumber);

export const viewOptions = (command: Command) =>
  command
    .addOption(
      new Option('--sort <fact[:desc]>', 'order of the pages, as depth or share:desc; by address without it').argParser(
        asSort,
      ),
    )
    .addOption(
      new Option('--share-model <model>', 'how share is worked out').choices(shareModels).default(wholeView.shareModel),
    );

export const selectOption = () =>
  new Option('--select <selection>', 'only pages that a selection holds, as "indexable and depth > 3"').argParser(
    asSelection,
  );

export type ViewGiven = Partial<Pick<ViewOptions, 'select' | 'sort' | 'shareModel'>>;
export const viewOptionsOf = ({ select, sort, shareModel }: ViewGiven): ViewOptions => ({
  select: select ?? wholeView.select,
  sort: sort ?? null,
  shareModel: shareModel ?? wholeView.shareModel,
});

export const examples = (...lines: string[]) =>
  `\nExamples:\n${lines.map((line) => `  ./edgemap ${line}`).join('\n')}\n`;
export const exitCodes = (...lines: string[]) => `\nExit codes:\n${lines.map((line) => `  ${line}`).join('\n')}\n`;
export const usageCode = '2  the command was called wrongly';
