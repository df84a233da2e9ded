/** The command line below ./edgemap, which has prepared everything that these commands need. */
import pino from 'pino';
import { allowsPrivate, work } from '$crawl/index';
import { closeDatabase, logTo, openDatabase, OperatorError, prepareDatabase } from '$server/index';
import type { Database } from '$server/index';
import { compareCommand } from './compare';
import { crawlCommand } from './crawl';
import { demoCommand } from './demo';
import { exportCommand, selectCommand } from './export';
import { UsageError } from './options';
import { EXIT_FAULT, EXIT_USAGE, runProgram } from './program';
import type { Handlers } from './commands/handlers';
import { onOrphaned } from './orphaned';
import { importCommand } from './import';
import { robotsCheckCommand, robotsCompareCommand, robotsTestCommand } from './robots';
import { sampleCommand } from './sample';
import { sitemapCheckCommand, sitemapWriteCommand } from './sitemap';
import { sourcesCommand } from './sources';
import { serve } from './serve';

async function withDatabase(command: (db: Database) => Promise<number>): Promise<number> {
  await prepareDatabase();
  const db = openDatabase();
  try {
    return await command(db);
  } finally {
    await closeDatabase(db);
  }
}

/** The worker that ended by itself before this one, as `./edgemap` says when it starts another. */
function predecessorOf({ EDGEMAP_PREDECESSOR: pid, EDGEMAP_RESTARTS: restarts }: NodeJS.ProcessEnv) {
  return pid ? { pid: Number(pid), restarts: Number(restarts) || 1 } : null;
}

async function worker(): Promise<number> {
  const log = pino({ name: 'worker' }, logTo(2));
  const stop = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => stop.abort('shutdown'));
  onOrphaned(() => stop.abort('shutdown'));
  const allowPrivate = allowsPrivate();
  return withDatabase(async (db) => {
    await work({ db, log, allowPrivate, predecessor: predecessorOf(process.env), signal: stop.signal });
    return 0;
  });
}

const handlers: Handlers = {
  crawl: (call) => withDatabase((db) => crawlCommand(db, call)),
  export: (call) => withDatabase((db) => exportCommand(db, call)),
  select: (call) => withDatabase((db) => selectCommand(db, call)),
  sample: (call) => withDatabase((db) => sampleCommand(db, call)),
  import: (call) => withDatabase((db) => importCommand(db, call)),
  sources: (call) => withDatabase((db) => sourcesCommand(db, call)),
  sitemapCheck: sitemapCheckCommand,
  sitemapWrite: (call) => withDatabase((db) => sitemapWriteCommand(db, call)),
  compare: (call) => withDatabase((db) => compareCommand(db, call)),
  robotsTest: robotsTestCommand,
  robotsCheck: robotsCheckCommand,
  robotsCompare: (call) => withDatabase((db) => robotsCompareCommand(db, call)),
  demo: (port) => withDatabase((db) => demoCommand(db, port)),
  migrate: async () => {
    await prepareDatabase();
    return 0;
  },
  serve,
  worker,
};

/** Reads a call without carrying it out: wrong usage is told before anything is started. */
const checkOnly = Object.fromEntries(
  Object.keys(handlers).map((name) => [name, () => Promise.resolve(0)]),
) as unknown as Handlers;

runProgram(process.env.EDGEMAP_CHECK ? checkOnly : handlers, process.argv.slice(2)).then(
  (code) => (process.exitCode = code),
  (error: unknown) => {
    const known = error instanceof UsageError || error instanceof OperatorError;
    console.error(`edgemap: ${known ? error.message : `something went wrong: ${(error as Error).message}`}`);
    if (!known && process.env.EDGEMAP_DEBUG) console.error(error);
    process.exitCode = error instanceof UsageError ? EXIT_USAGE : EXIT_FAULT;
  },
);
