/** The commands about robots.txt. */
import type { Command } from 'commander';
import { asOrigin } from '../options';
import type { Handlers, Runs } from './handlers';
import { crawlArgument, examples, exitCodes, usageCode } from './shared';

export function addRobotsCommands(program: Command, handlers: Handlers, runs: Runs): void {
  const robots = program.command('robots').description('test or check a robots.txt, or see what it would change');
  robots
    .command('test')
    .description('say of addresses whether a robots.txt opens them to a crawler: address, verdict, line, rule')
    .argument('<source>', 'an address, or a file')
    .argument('[urls...]', 'addresses to test')
    .requiredOption('--agent <token>', 'product token of the crawler')
    .option('--urls <file>', 'addresses to test, one per line')
    .option('--json', 'print JSON')
    .addHelpText(
      'after',
      examples(
        'robots test robots.txt --agent searchbot https://www.example.org/shop',
        'robots test https://www.example.org/robots.txt --agent searchbot --urls list.txt',
      ),
    )
    .addHelpText('after', exitCodes('0  the addresses are judged', usageCode))
    .action(
      runs(
        (source: string, urls: string[], { agent, urls: list, json }: { agent: string; urls?: string; json?: true }) =>
          handlers.robotsTest({ source, agent, urls, list: list ?? null, json: json ?? false }),
      ),
    );
  robots
    .command('check')
    .description('print the faults of a robots.txt')
    .argument('<source>', 'an address, or a file')
    .option('--json', 'print JSON')
    .addHelpText('after', examples('robots check robots.txt'))
    .addHelpText('after', exitCodes('0  there are no faults', '1  there are faults', usageCode))
    .action(runs((source: string, { json }: { json?: true }) => handlers.robotsCheck({ source, json: json ?? false })));
  robots
    .command('compare')
    .description('say what a robots.txt would close and open in a crawl, and what that costs')
    .addArgument(crawlArgument('<crawl>', 'number of the crawl'))
    .argument('<file>', 'the robots.txt to try')
    .requiredOption('--agent <token>', 'product token of the crawler')
    .option('--origin <address>', 'scheme and host that the file is for (default: those of the start)', asOrigin)
    .option('--json', 'print JSON')
    .addHelpText(
      'after',
      examples(
        'robots compare 12 robots.txt --agent searchbot',
        'robots compare 12 shop.txt --agent searchbot --origin https://shop.example.org',
      ),
    )
    .addHelpText('after', exitCodes('0  the files are compared', '1  the crawl cannot be read', usageCode))
    .action(
      runs((crawl: number, file: string, { json, origin, ...rest }: { agent: string; origin?: string; json?: true }) =>
        handlers.robotsCompare({ crawl, file, ...rest, origin: origin ?? null, json: json ?? false }),
      ),
    );
}
