/** The command line below ./edgemap, which has prepared everything these commands need. */
import pino from 'pino';
import { closeDatabase, openDatabase, OperatorError, prepareDatabase } from '$server/index';
import { allowsPrivate, work } from '$crawl/index';
import { serve } from './serve';
import { crawlCommand } from './crawl';
import { demoCommand } from './demo';
import { exportCommand, selectCommand } from './export';
import { readCrawlCall, readExportCall, readSelectCall, UsageError } from './options';

const EXIT_FAULT = 1;
const EXIT_USAGE = 2;

async function worker(): Promise<number> {
  const log = pino({ name: 'worker' }, pino.destination(2));
  const stop = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => stop.abort('shutdown'));
  const allowPrivate = allowsPrivate();
  await prepareDatabase();
  const db = openDatabase();
  await work(db, log, allowPrivate, stop.signal);
  await closeDatabase(db);
  return 0;
}

async function withDatabase(command: (db: ReturnType<typeof openDatabase>) => Promise<number>): Promise<number> {
  await prepareDatabase();
  const db = openDatabase();
  try {
    return await command(db);
  } finally {
    await closeDatabase(db);
  }
}

const readers: Record<string, (words: string[]) => unknown> = {
  crawl: readCrawlCall,
  export: readExportCall,
  select: readSelectCall,
};

async function run(command: string | undefined, words: string[]): Promise<number> {
  switch (command) {
    case 'check':
      // Wrong usage is told before anything is started.
      readers[words[0]](words.slice(1));
      return 0;
    case 'crawl': {
      const call = readCrawlCall(words);
      return withDatabase((db) => crawlCommand(db, call));
    }
    case 'export': {
      const call = readExportCall(words);
      return withDatabase((db) => exportCommand(db, call));
    }
    case 'select': {
      const call = readSelectCall(words);
      return withDatabase((db) => selectCommand(db, call));
    }
    case 'demo':
      return withDatabase((db) => demoCommand(db, words));
    case 'migrate':
      await prepareDatabase();
      return 0;
    case 'serve':
      return serve();
    case 'worker':
      return worker();
    default:
      throw new UsageError(`There is no command “${command ?? ''}”.`);
  }
}

run(process.argv[2], process.argv.slice(3)).then(
  (code) => (process.exitCode = code),
  (error: unknown) => {
    const mine = error instanceof UsageError || error instanceof OperatorError;
    console.error(`edgemap: ${mine ? error.message : `something went wrong: ${(error as Error).message}`}`);
    if (!mine && process.env.EDGEMAP_DEBUG) console.error(error);
    process.exitCode = error instanceof UsageError ? EXIT_USAGE : EXIT_FAULT;
  },
);
