/** What a crawl from an address will do, said before it starts. */
import { bareHost } from '$core/scope';
import { readStartAddress } from '$core/url';
import { duration, moment, number } from '../shell/words';

interface KnownCrawl {
  at: Date;
  done: number;
  known: number;
  ranMs: number;
}
interface KnownSite {
  start: string;
  newest: KnownCrawl | null;
}

/** Pages a second that a site of usual speed answers over one connection: what a first guess is made of. */
const SLOW = 0.5;
const QUICK = 4;

const rough = (seconds: number) =>
  seconds < 90 ? `${Math.ceil(seconds / 5) * 5} s` : `${Math.ceil(seconds / 60)} minutes`;

/**
 * Tells what will be crawled and roughly how long that takes.
 * @param typed what stands in the field
 * @returns null when that is not an address yet
 */
export function planOf(
  typed: string,
  sites: readonly KnownSite[],
  { limit, connections }: { limit: number; connections: number },
): string | null {
  const start = readStartAddress(typed);
  if (!start.ok) return null;
  const { address } = start;
  const known = sites.find((site) => site.start === address);
  if (known?.newest && known.newest.done > 0) {
    const { at, done, ranMs } = known.newest;
    return `You have crawled ${address} before: ${number(done)} URLs in ${duration(ranMs)} on ${moment(at)}. The new crawl uses the settings of the site.`;
  }
  const { host } = new URL(address);
  const bare = bareHost(host);
  const times = [QUICK, SLOW].map((rate) => rough(1000 / (rate * connections)));
  return `Starts at ${address} and follows links on ${bare} and www.${bare}, up to ${number(limit)} pages with ${connections} requests at once. 1,000 pages usually take ${times[0]} to ${times[1]}.`;
}
