/** Reads an access log: hits by address. */
import { addHit, answeredHits, crawlerTest, logReader, noHits } from '$core/accessLog';
import type { Hits, LogHit } from '$core/accessLog';
import type { Message } from '$core/messages';
import { checkSize, eachLine } from './lines';
import type { Reading } from './reading';

/** What was asked for, with the host where it is named: one spelling of an address. */
const keyOf = ({ target, host }: LogHit) => (host && target.startsWith('/') ? `${host} ${target}` : target);

/** The target as UTF-8, where a server has written bytes that are no ASCII. */
const asUtf8 = (text: string) => (/[\u0080-\u00ff]/.test(text) ? Buffer.from(text, 'latin1').toString() : text);

/** A copy that does not hold the piece of the file that it was cut from. */
const ownCopy = (text: string) => Buffer.from(text, 'latin1').toString('latin1');

/** An address as a log names it, for {@link Reading.resolve}. */
function hrefOf({ target, host }: LogHit, scheme: string): string {
  const asked = asUtf8(target);
  if (!host || !asked.startsWith('/')) return asked;
  const [name, port] = host.split(':');
  return `${port === '443' ? 'https' : scheme}//${port === '443' || port === '80' ? name : host}${asked}`;
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
  const isCrawler = crawlerTest(isTheirs);
  const scheme = new URL(reading.start).protocol;
  /** Hits by spelling; or why the spelling is no address of the site. */
  const spellings = new Map<string, Hits | Message>();
  const byAddress = new Map<string, Hits>();
  const settle = (hit: LogHit, key: string): Hits | Message => {
    const found = reading.resolve(hrefOf(hit, scheme));
    let entry: Hits | Message;
    if ('code' in found) entry = found;
    else {
      entry = byAddress.get(found.address) ?? noHits();
      byAddress.set(found.address, entry);
    }
    spellings.set(ownCopy(key), entry);
    checkSize(spellings.size);
    return entry;
  };
  await eachLine(bytes, (line, number) => {
    const found = read(line);
    if (found === null) return;
    reading.count();
    if (!found.ok) return reading.reject(number, found.reason);
    const key = keyOf(found.hit);
    const entry = spellings.get(key) ?? settle(found.hit, key);
    if ('code' in entry) reading.reject(number, entry);
    else addHit(entry, found.hit, isCrawler(found.hit));
  });
  const addresses = [...byAddress.keys()].sort();
  const hits = addresses.map((address) => byAddress.get(address)!);
  const column = (of: (hits: Hits) => number) => Float64Array.from(hits, of);
  return {
    addresses,
    columns: {
      hits: column((one) => one.hits),
      crawler_hits: column(({ crawlerHits }) => crawlerHits),
      answered: column(answeredHits),
      last_hit: column(({ lastHit }) => (lastHit < 0 ? NaN : lastHit)),
    },
    cells: hits.map(({ cells }) => cells),
  };
}
