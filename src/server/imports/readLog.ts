/** Reads an access log: hits by address. */
import { hitCounter, logReader, saysCrawler } from '$core/accessLog';
import type { LogHit } from '$core/accessLog';
import type { Message } from '$core/messages';
import { ownCopy } from '$core/strings';
import { checkSize, eachLine } from './lines';
import type { Reading } from './reading';

/** What was asked for, with the host where it is named: one spelling of an address. */
const keyOf = ({ target, host }: LogHit) => (host && target.startsWith('/') ? `${host} ${target}` : target);

/** The target as UTF-8, where a server has written bytes that are no ASCII. */
const asUtf8 = (text: string) => (/[\u0080-\u00ff]/.test(text) ? Buffer.from(text, 'latin1').toString() : text);

/** An address as a log names it, for {@link Reading.resolve}. */
function hrefOf({ target, host }: LogHit, scheme: string): string {
  const asked = asUtf8(target);
  if (!host || !asked.startsWith('/')) return asked;
  const [name, port] = host.split(':');
  return `${port === '443' ? 'https' : scheme}//${port === '443' || port === '80' ? name : host}${asked}`;
}

/** Longer spellings are looked at each time, so that what is remembered has a bound. */
const MOST_REMEMBERED = 800;
/** As many agents are remembered; there are a few thousand in most logs. */
const MOST_AGENTS = 50_000;

/** Tells which agents say that they are crawlers, and looks at each once. */
function agentTest() {
  const known = new Map<string, boolean>();
  return (agent: string): boolean => {
    let says = known.get(agent);
    if (says === undefined) {
      if (known.size >= MOST_AGENTS) known.clear();
      known.set(ownCopy(agent), (says = saysCrawler(agent)));
    }
    return says;
  };
}

/** Numbers the addresses that a log names. What is asked for is looked at once for each way in which it is spelled. */
function addressFinder(reading: Reading) {
  const scheme = new URL(reading.start).protocol;
  const numbers = new Map<string, number>();
  const spelled = new Map<string, number | Message>();
  const find = (asked: LogHit): number | Message => {
    const found = reading.resolve(hrefOf(asked, scheme));
    if ('code' in found) return found;
    const number = numbers.get(found.address) ?? numbers.size;
    numbers.set(found.address, number);
    checkSize(spelled.size);
    return number;
  };
  return {
    numbers,
    /** The number of the address of a hit; or why it is none of the site. */
    of(hit: LogHit): number | Message {
      const key = keyOf(hit);
      const known = spelled.get(key);
      if (known !== undefined) return known;
      const found = find(hit);
      if (key.length <= MOST_REMEMBERED) spelled.set(ownCopy(key), found);
      return found;
    },
  };
}

/**
 * Counts the hits of a log.
 * @param isTheirs whether an IP address belongs to a search crawler, where that is known
 */
export async function readLog(
  reading: Reading,
  bytes: AsyncIterable<Uint8Array>,
  isTheirs: ((client: string) => boolean) | null,
) {
  const read = logReader();
  const agentSays = agentTest();
  const addresses = addressFinder(reading);
  const counter = hitCounter();
  await eachLine(bytes, (line, from, to, number) => {
    const found = read(line.toString('latin1', from, to));
    if (found === null) return;
    reading.count();
    if (!found.ok) return reading.reject(number, found.reason);
    const { hit } = found;
    const address = addresses.of(hit);
    if (typeof address !== 'number') return reading.reject(number, address);
    counter.add(address, hit, agentSays(hit.agent) && (isTheirs === null || isTheirs(hit.client)));
  });
  const ordered = [...addresses.numbers.keys()].sort();
  const order = Uint32Array.from(ordered, (address) => addresses.numbers.get(address)!);
  const { hits, crawlerHits, answered, lastHit, cells, ends } = counter.counted(order);
  return {
    addresses: ordered,
    columns: { hits, crawler_hits: crawlerHits, answered, last_hit: lastHit },
    cells: { cells, ends },
  };
}
