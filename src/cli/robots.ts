import { readFile } from 'node:fs/promises';
import { request } from 'undici';
import { sentence } from '$core/messages';
import { checkRobots, decodeRobots, MAX_ROBOTS_BYTES, parseRobots, robotsMatcher } from '$core/robots';
import type { RobotsMatcher, RobotsText } from '$core/robots';
import { pagesOfOrigin, robotsEffect } from '$core/robotsEffect';
import type { ChangedPage } from '$core/robotsEffect';
import { settingsSchema } from '$core/settings';
import { addressAt, factAt } from '$core/snapshot';
import { identify, originOf } from '$core/url';
import { isRedirectStatus } from '$core/verdict';
import type { Database } from '$server/index';
import { finishedCrawl } from './finished';
import { failure, isError } from '$core/errors';

const WAIT_MS = 30_000;
const MAX_REDIRECTS = 5;
/** What is read of an answer: enough to tell that it is too large. */
const MAX_READ = 2 * MAX_ROBOTS_BYTES;

async function fetched(address: string): Promise<Uint8Array> {
  let from = address;
  for (let redirects = 0; redirects <= MAX_REDIRECTS; redirects++) {
    const { statusCode, headers, body } = await request(from, {
      headers: { 'user-agent': 'EdgeMap/0.1' },
      headersTimeout: WAIT_MS,
      bodyTimeout: WAIT_MS,
    }).catch((error: Error) => {
      throw failure('unavailable', `${from} cannot be fetched, which closes the host to crawlers: ${error.message}`);
    });
    const next = isRedirectStatus(statusCode) ? identify(String(headers.location ?? ''), from) : null;
    if (next) {
      await body.dump().catch(() => {});
      from = next.address;
      continue;
    }
    // RFC 9309 §2.3.1.3: what is not there opens everything.
    if (statusCode >= 400 && statusCode < 500) return new Uint8Array();
    if (statusCode !== 200)
      throw failure('unavailable', `${from} answered ${statusCode}, which closes the host to crawlers.`);
    const pieces: Buffer[] = [];
    let size = 0;
    for await (const piece of body as AsyncIterable<Buffer>) {
      pieces.push(piece);
      size += piece.length;
      if (size > MAX_READ) break;
    }
    return Buffer.concat(pieces);
  }
  throw failure('usage', `${address} leads through more than ${MAX_REDIRECTS} redirects.`);
}

/** Reads a robots.txt from a file or an address. @throws usage */
async function readRobots(source: string): Promise<RobotsText> {
  if (/^https?:\/\//i.test(source)) {
    const address = identify(source)?.address;
    if (!address) throw failure('usage', `“${source}” is not a valid address.`);
    return decodeRobots(await fetched(address));
  }
  const bytes = await readFile(source).catch((error: Error) => {
    throw failure('usage', `The file cannot be read: ${error.message}`);
  });
  return decodeRobots(bytes);
}

const print = (value: unknown) => process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);

export interface RobotsTestCall {
  source: string;
  agent: string;
  urls: string[];
  /** File with an address a line. */
  list: string | null;
  json: boolean;
}

/** `edgemap robots test`: says of addresses whether they are open to a crawler, and by which rule. */
export async function robotsTestCommand({ source, agent, urls, list, json }: RobotsTestCall): Promise<number> {
  const matcher = await readRobots(source).then(
    ({ text }) => robotsMatcher(parseRobots(text), agent),
    (error: Error): RobotsMatcher => {
      if (!isError(error, 'unavailable')) throw error;
      console.error(`edgemap: ${error.message}`);
      return () => ({ allowed: false });
    },
  );
  const listed =
    list === null
      ? ''
      : await readFile(list, 'utf8').catch((error: Error) => {
          throw failure('usage', `--urls: ${error.message}`);
        });
  const all = [...urls, ...listed.split(/\r\n|\r|\n/).filter((line) => line.trim() !== '')];
  if (all.length === 0) throw failure('usage', 'No address is given. Name some, or a file of them with --urls.');
  // A path alone is tested as one of whatever host the file is for.
  const base = /^https?:\/\//i.test(source) ? source : 'https://host.example/';
  const rows = all.map((given) => {
    const address = identify(given.trim(), base)?.address;
    if (!address) throw failure('usage', `“${given}” is not an http or https address.`);
    const { allowed, rule } = matcher(address);
    const text = rule ? `${rule.directive === 'allow' ? 'Allow' : 'Disallow'}: ${rule.path}` : '';
    return { url: given.trim(), verdict: allowed ? 'allowed' : 'blocked', line: rule?.line ?? 0, rule: text };
  });
  if (json) print(rows);
  else for (const { url, verdict, line, rule } of rows) process.stdout.write(`${url}\t${verdict}\t${line}\t${rule}\n`);
  return 0;
}

/** `edgemap robots check`: prints the faults of a robots.txt by line. @returns 1 when there are any */
export async function robotsCheckCommand({ source, json }: { source: string; json: boolean }): Promise<number> {
  const faults = checkRobots(await readRobots(source)).map(({ line, id, message }) => ({
    line,
    id,
    message: sentence(message),
  }));
  if (json) print({ file: source, faults });
  else for (const { line, id, message } of faults) process.stdout.write(`${source}:${line} ${id} ${message}\n`);
  return faults.length ? 1 : 0;
}

export interface RobotsCompareCall {
  crawl: number;
  file: string;
  agent: string;
  /** Scheme and host that the file is for; null for those of the start. */
  origin: string | null;
  json: boolean;
}

/** `edgemap robots compare`: what a robots.txt would close and open in a crawl, and what that costs. */
export async function robotsCompareCommand(db: Database, call: RobotsCompareCall): Promise<number> {
  const { text } = await readRobots(call.file);
  const { row, snapshot } = await finishedCrawl(db, call.crawl);
  const settings = settingsSchema.parse(row.settings);
  const change = { origin: call.origin ?? originOf(settings.start), text, token: call.agent };
  if (pagesOfOrigin(snapshot, change.origin).length === 0)
    throw failure('usage', `Crawl ${call.crawl} knows no address of ${change.origin}.`);
  const { counts, closed, opened, before } = robotsEffect(snapshot, change, settings);
  const rowOf = ({ page, line }: ChangedPage) => ({
    url: addressAt(snapshot, page),
    verdict: factAt(before, 'verdict', page),
    share: factAt(before, 'share', page),
    line: line ?? 0,
  });
  if (call.json) {
    print({ closed: closed.map(rowOf), opened: opened.map(rowOf), summary: counts });
    return 0;
  }
  for (const [change, pages] of Object.entries({ closed, opened }))
    for (const { url, verdict, share } of pages.map(rowOf))
      process.stdout.write(
        `${change}\t${url}\t${verdict as string}\t${share === null ? '' : Number(share).toFixed(4)}\n`,
      );
  process.stdout.write(`${JSON.stringify(counts)}\n`);
  return 0;
}
