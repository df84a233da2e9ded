/** Reads an access log: hits by address. */
import { crawlerTest, hitCounter, logReader } from '$core/accessLog';
import type { LogHit } from '$core/accessLog';
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
  const counter = hitCounter();
  /** The number of its address by spelling; or why the spelling is no address of the site. */
  const spellings = new Map<string, number | Message>();
  const numbers = new Map<string, number>();
  const settle = (hit: LogHit, key: string): number | Message => {
    const found = reading.resolve(hrefOf(hit, scheme));
    let entry: number | Message;
    if ('code' in found) entry = found;
    else {
      entry = numbers.get(found.address) ?? numbers.size;
      numbers.set(found.address, entry);
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
    if (typeof entry === 'number') counter.add(entry, found.hit, isCrawler(found.hit));
    else reading.reject(number, entry);
  });
  const addresses = [...numbers.keys()].sort();
  const order = Uint32Array.from(addresses, (address) => numbers.get(address)!);
  const { hits, crawlerHits, answered, lastHit, cells, ends } = counter.counted(order);
  return {
    addresses,
    columns: { hits, crawler_hits: crawlerHits, answered, last_hit: lastHit },
    cells: { cells, ends },
  };
}
