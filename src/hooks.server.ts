/** The boundary of every request: who asks, which site and crawl the address names, and what is said of failures. */
import type { Handle, HandleServerError } from '@sveltejs/kit';
import pino from 'pino';
import { appDatabase, crawlState, diskTrouble, isConnectionLoss, isDiskFull, logTo, siteName } from '$server/index';
import { readCrawlName } from '$lib/shell/routes';
import { accessOf, isAllowed } from './routes/access';
import { isError } from '$core/errors';

const log = pino({ name: 'app' }, logTo(2));

type Named = Pick<App.Locals, 'site' | 'crawl' | 'version'>;
const nobody: Named = { site: null, crawl: null, version: 'crawled' };

/** Finds the site and the crawl of an address; the crawl must be one of the site. */
async function named({ site, crawl: name }: Partial<Record<string, string>>): Promise<Named> {
  if (!site) return nobody;
  const db = appDatabase();
  const crawl = name === undefined ? null : readCrawlName(name);
  const [ofSite, ofCrawl] = await Promise.all([
    siteName(db, Number(site)),
    crawl ? crawlState(db, crawl.id) : undefined,
  ]);
  const belongs = ofSite !== undefined && ofCrawl?.siteId === ofSite.id && ofCrawl.deletedAt === null;
  return { site: ofSite ?? null, crawl: belongs ? ofCrawl : null, version: crawl?.version ?? 'crawled' };
}

export const handle: Handle = async ({ event, resolve }) => {
  event.locals.access = accessOf(event.request);
  if (!isAllowed(event.locals.access, event.request)) return new Response('Not allowed.\n', { status: 403 });
  Object.assign(event.locals, nobody);
  try {
    Object.assign(event.locals, await named(event.params));
  } catch (error) {
    // What is thrown here is not shown on a page of ours; whoever asks for the site or the crawl throws it.
    event.locals.failure = error;
  }
  return resolve(event);
};

/** What a person sees of a failure: what happened and what to do, never a stack. */
export const handleError: HandleServerError = async ({ error, event, status, message }) => {
  if (status === 413)
    return {
      message: 'That is more than Edge Map takes in at once.',
      remedy: 'Files of settings have up to 8 MiB. Send less, or in parts; nothing was changed.',
    };
  if (status === 415)
    return {
      message: 'The request does not say that it is a form.',
      remedy: 'Send it as application/x-www-form-urlencoded or multipart/form-data.',
    };
  if (status === 404) return { message: 'There is no such page.', remedy: 'Go back to your sites.' };
  const path = event.url.pathname;
  log.error({ path, error: error instanceof Error ? { message: error.message, stack: error.stack } : error }, message);
  // A database whose disk is full may not answer either.
  if (isDiskFull(error) || (isConnectionLoss(error) && (await diskTrouble())))
    return {
      message: 'The disk of the database is full.',
      remedy: 'Nothing that was stored is lost. Make room on the disk, then do this again.',
    };
  if (isConnectionLoss(error))
    return {
      message: 'The database does not answer.',
      remedy: 'Nothing is lost. Wait a moment and load the page again; if that does not help, restart Edge Map.',
    };
  if (isError(error, 'operator')) return { message: error.message, remedy: error.remedy ?? undefined };
  return {
    message: 'Something went wrong inside Edge Map.',
    remedy: 'Load the page again. The log of the app says more.',
  };
};
