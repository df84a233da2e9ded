/**
 * The command line below ./edgemap, which has prepared everything that these commands need. What a command does is
 * loaded when it is called: help, and what needs no database, start without most of the program.
 */
import type { Handlers } from './commands/handlers';
import type { handlers as others } from './handlers';
import { EdgeMapError, isError, toldError } from '$core/errors';
import { EXIT_FAULT, EXIT_USAGE, runProgram } from './program';

/** A handler that is loaded when it is called. */
const later =
  <Name extends keyof typeof others>(name: Name) =>
  async (...words: Parameters<(typeof others)[Name]>): Promise<number> => {
    const { handlers } = await import('./handlers');
    return (handlers[name] as (...words: unknown[]) => Promise<number>)(...words);
  };

const handlers: Handlers = {
  crawl: later('crawl'),
  export: later('export'),
  graph: later('graph'),
  select: later('select'),
  sample: later('sample'),
  import: later('import'),
  sources: later('sources'),
  sitemapCheck: async (call) => (await import('./sitemapCheck')).sitemapCheckCommand(call),
  sitemapWrite: later('sitemapWrite'),
  anchors: later('anchors'),
  suggest: later('suggest'),
  compare: later('compare'),
  robotsTest: later('robotsTest'),
  robotsCheck: later('robotsCheck'),
  robotsCompare: later('robotsCompare'),
  draft: later('draft'),
  plan: later('plan'),
  demo: later('demo'),
  migrate: later('migrate'),
  serve: later('serve'),
  worker: later('worker'),
};

// Whoever reads, such as head, may have seen enough; the command goes on to its end.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code !== 'EPIPE') throw error;
});

runProgram(handlers, process.argv.slice(2)).then(
  (code) => (process.exitCode = code),
  (error: unknown) => {
    const known = error instanceof EdgeMapError;
    const said = error instanceof Error ? error.message : String(error);
    console.error(`edgemap: ${known ? toldError(error) : `something went wrong: ${said}`}`);
    if (!known && process.env.EDGEMAP_DEBUG) console.error(error);
    process.exitCode = isError(error, 'usage', 'unavailable') ? EXIT_USAGE : EXIT_FAULT;
  },
);
