/** The commands that make crawls, and write what is in them. */
import { Argument, Option } from 'commander';
import type { Command } from 'commander';
import type { MapRule } from '$core/compare';
import { graphEdges, graphFormats } from '$core/formats';
import type { GraphEdges, GraphFormatName } from '$core/formats';
import {
  asMapRule,
  asOverride,
  asRate,
  asSelection,
  asSettingsFile,
  asStart,
  asUrl,
  asWholeNumber,
  crawlSettings,
  gathered,
} from '../options';
import type { CrawlOptions, ViewOptions } from '../options';
import type { Handlers, Runs } from './handlers';
import { crawlArgument, examples, exitCodes, selectOption, usageCode, viewOptionsOf, viewOptions } from './shared';
import type { ViewGiven } from './shared';

interface GraphGiven {
  out: string;
  format?: GraphFormatName;
  select?: ViewOptions['select'];
  edges: GraphEdges;
}

export function addCrawlCommands(program: Command, handlers: Handlers, runs: Runs): void {
  viewOptions(
    program
      .command('crawl')
      .description('crawl a website in the foreground')
      .addArgument(new Argument('<start>', 'address to start from').argParser(asStart))
      .option('--limit <n>', 'fetch at most so many pages', asWholeNumber)
      .option('--depth <n>', 'fetch nothing deeper than so many clicks', asWholeNumber)
      .option('--connections <n>', 'requests under way at once', asWholeNumber)
      .option('--rate <n>', 'requests a second to one host', asRate)
      .addOption(new Option('--obey-robots', 'obey robots.txt (the default)').conflicts('ignoreRobots'))
      .addOption(new Option('--ignore-robots', 'fetch what robots.txt closes too, and report it'))
      // Its name in earlier versions.
      .addOption(new Option('--look-past-robots').implies({ ignoreRobots: true }).conflicts('obeyRobots').hideHelp())
      .option('--host <host>', 'a further host that belongs to the site; may be repeated', gathered(String))
      .option('--include <pattern>', 'fetch only matching addresses; may be repeated', gathered(String))
      .option('--exclude <pattern>', 'do not fetch matching addresses; may be repeated', gathered(String))
      .option('--sitemap <url>', 'a sitemap to read; may be repeated', gathered(asUrl))
      .option('--override <host=address:port>', 'connect to another address; may be repeated', gathered(asOverride))
      .option('--private', 'fetch from private addresses, though EDGEMAP_PRIVATE refuses that')
      .option('--insecure', 'accept certificates that cannot be checked')
      .option('--settings <file>', 'settings that the settings screen has exported', asSettingsFile)
      .option('--out <folder>', 'write pages.csv, links.csv and summary.json there')
      .addOption(selectOption()),
  )
    .addHelpText('after', examples('crawl https://www.example.org/ --limit 5000 --out result'))
    .addHelpText('after', exitCodes('0  the crawl finished or was stopped', '1  nothing could be fetched', usageCode))
    .action(
      runs((start: string, options: CrawlOptions & ViewGiven & { out?: string; private?: true }) =>
        handlers.crawl({
          settings: crawlSettings(start, options),
          lists: options.settings?.lists ?? [],
          out: options.out ?? null,
          view: viewOptionsOf(options),
          allowPrivate: options.private ?? process.env.EDGEMAP_PRIVATE !== 'refuse',
        }),
      ),
    );

  viewOptions(
    program
      .command('export')
      .description('write pages.csv, links.csv and summary.json of a crawl')
      .addArgument(crawlArgument('<crawl>', 'number of the crawl'))
      .requiredOption('--out <folder>', 'folder for the files')
      .option('--tables', 'write canonicals.csv, variants.csv, hreflang.csv, page_rules.csv and answer_sheet.csv too')
      .addOption(selectOption()),
  )
    .addHelpText('after', examples('export 12 --out result --select "indexable and depth > 3" --sort share:desc'))
    .addHelpText('after', exitCodes('0  the files are written', '1  they could not be written', usageCode))
    .action(
      runs((crawl: number, options: ViewGiven & { out: string; tables?: true }) =>
        handlers.export({ crawl, out: options.out, view: viewOptionsOf(options), tables: options.tables ?? false }),
      ),
    );

  program
    .command('graph')
    .description('write a crawl as a graph: pages with all facts, and the links between them')
    .addArgument(crawlArgument('<crawl>', 'number of the crawl'))
    .requiredOption('--out <file>', 'as CSV the edges; the nodes stand beside them in a file that ends in -nodes.csv')
    .addOption(new Option('--format <format>', 'as the file ends, when this is not given').choices(graphFormats))
    .addOption(selectOption())
    .addOption(
      new Option('--edges <edges>', 'an edge for each link, or for each pair of pages')
        .choices(graphEdges)
        .default('links'),
    )
    .addHelpText('after', examples('graph 12 --out site.graphml --edges pairs --select "indexable"'))
    .addHelpText('after', exitCodes('0  the file is written', '1  it could not be written', usageCode))
    .action(
      runs((crawl: number, { out, format, select, edges }: GraphGiven) =>
        handlers.graph({ crawl, out, format: format ?? null, select: select ?? { op: 'all' }, edges }),
      ),
    );

  viewOptions(
    program
      .command('select')
      .description('print the addresses that a selection holds')
      .addArgument(crawlArgument('<crawl>', 'number of the crawl'))
      .addArgument(new Argument('[selection]', 'in quotes, as "orphan and indexable"').argParser(asSelection)),
  )
    .addHelpText('after', examples('select 12 "indexable and only through (url has \\"page=\\")"'))
    .addHelpText('after', exitCodes('0  the addresses are printed', '1  the crawl cannot be read', usageCode))
    .action(
      runs((crawl: number, select: ViewOptions['select'] | undefined, options: ViewGiven) =>
        handlers.select({ crawl, view: viewOptionsOf({ ...options, select }) }),
      ),
    );

  program
    .command('sample')
    .description('print random occurrences of a finding, to judge whether it is right')
    .addArgument(crawlArgument('<crawl>', 'number of the crawl'))
    .argument('<finding>', 'id of the finding, as summary.json has it')
    .option('--n <n>', 'how many', asWholeNumber, 25)
    .option('--seed <n>', 'another number draws other occurrences', asWholeNumber, 1)
    .option('--json', 'print JSON')
    .addHelpText('after', examples('sample 12 anchor_off_topic', 'sample 12 starving --n 10 --seed 7 --json'))
    .addHelpText('after', exitCodes('0  the occurrences are printed', '1  the crawl cannot be read', usageCode))
    .action(
      runs((crawl: number, finding: string, { n, seed, json }: { n: number; seed: number; json?: true }) =>
        handlers.sample({ crawl, finding, n, seed, json: json ?? false }),
      ),
    );

  program
    .command('compare')
    .description('write what moved from one crawl to another: pages, links, findings')
    .addArgument(crawlArgument('<old>', 'number of the earlier crawl'))
    .addArgument(crawlArgument('<new>', 'number of the later crawl'))
    .requiredOption('--out <folder>', 'folder for the files')
    .option(
      '--map <host=host>',
      'a host, or folder, that counts as another, as staging.a.org=www.a.org; may be repeated',
      gathered(asMapRule),
    )
    .addHelpText(
      'after',
      examples('compare 12 15 --out result', 'compare 12 20 --out result --map staging.example.org=www.example.org'),
    )
    .addHelpText('after', exitCodes('0  the files are written', '1  they could not be written', usageCode))
    .action(
      runs((old: number, fresh: number, { out, map }: { out: string; map?: MapRule[] }) =>
        handlers.compare({ old, fresh, out, map: map ?? [] }),
      ),
    );
}
