/** What the commands do, but for those that main.ts loads by themselves. */
import pino from 'pino';
import { allowsPrivate, work } from '$crawl/index';
import { closeDatabase, logTo, openDatabase, prepareDatabase } from '$server/index';
import type { Database } from '$server/index';
import { anchorsCommand } from './anchors';
import { compareCommand } from './compare';
import { crawlCommand } from './crawl';
import { demoCommand } from './demo';
import { draftCommand, planCommand } from './draft';
import { exportCommand, selectCommand } from './export';
import { graphCommand } from './graph';
import type { Handlers } from './commands/handlers';
import { onOrphaned } from './orphaned';
import { endWhenStuck } from './watchdog';
import { importCommand } from './import';
import { holdDatabase } from './privateDatabase';
import { robotsCheckCommand, robotsCompareCommand, robotsTestCommand } from './robots';
import { sampleCommand } from './sample';
import { sitemapWriteCommand } from './sitemapWrite';
import { sourcesCommand } from './sources';
import { serve } from './serve';
import { suggestCommand } from './suggest';

async function withDatabase(command: (db: Database) => Promise<number>): Promise<number> {
  const letGo = await holdDatabase();
  try {
    await prepareDatabase();
    const db = openDatabase();
    return await command(db).finally(() => closeDatabase(db));
  } finally {
    await letGo();
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
  endWhenStuck('worker');
  const allowPrivate = allowsPrivate();
  return withDatabase(async (db) => {
    await work({ db, log, allowPrivate, predecessor: predecessorOf(process.env), signal: stop.signal });
    return 0;
  });
}

export const handlers: Omit<Handlers, 'sitemapCheck'> = {
  crawl: (call) => withDatabase((db) => crawlCommand(db, call)),
  export: (call) => withDatabase((db) => exportCommand(db, call)),
  graph: (call) => withDatabase((db) => graphCommand(db, call)),
  select: (call) => withDatabase((db) => selectCommand(db, call)),
  sample: (call) => withDatabase((db) => sampleCommand(db, call)),
  import: (call) => withDatabase((db) => importCommand(db, call)),
  sources: (call) => withDatabase((db) => sourcesCommand(db, call)),
  sitemapWrite: (call) => withDatabase((db) => sitemapWriteCommand(db, call)),
  anchors: (call) => withDatabase((db) => anchorsCommand(db, call)),
  suggest: (call) => withDatabase((db) => suggestCommand(db, call)),
  compare: (call) => withDatabase((db) => compareCommand(db, call)),
  draft: (call) => withDatabase((db) => draftCommand(db, call)),
  plan: (call) => withDatabase((db) => planCommand(db, call)),
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
