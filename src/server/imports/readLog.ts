/** Reads an access log: hits by address. */
import { hitCounter, logReader, noPlainHit, saysCrawler } from '$core/accessLog';
import type { Asked, LogHit, PlainHit } from '$core/accessLog';
import { byteNumbers } from '$core/grouping';
import type { Message } from '$core/messages';
import { ownCopy } from '$core/strings';
import { checkSize, eachLine } from './lines';
import type { Reading } from './reading';

/** What was asked for, with the host where it is named: one spelling of an address. */
const keyOf = ({ target, host }: Pick<LogHit, 'target' | 'host'>) =>
  host && target.startsWith('/') ? `${host} ${target}` : target;

/** The target as UTF-8, where a server has written bytes that are no ASCII. */
const asUtf8 = (text: string) => (/[\u0080-\u00ff]/.test(text) ? Buffer.from(text, 'latin1').toString() : text);

/** An address as a log names it, for {@link Reading.resolve}. */
function hrefOf({ target, host }: Pick<LogHit, 'target' | 'host'>, scheme: string): string {
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
  let agents = byteNumbers();
  let crawlers: boolean[] = [];
  return (bytes: Buffer, from: number, to: number): boolean => {
    if (agents.count() > MOST_AGENTS) [agents, crawlers] = [byteNumbers(), []];
    const agent = agents.numberOf(bytes, from, to);
    if (agent === crawlers.length) crawlers.push(saysCrawler(bytes.toString('latin1', from, to)));
    return crawlers[agent];
  };
}

/** Numbers the addresses that a log names. What is asked for is looked at once for each way in which it is spelled. */
function addressFinder(reading: Reading) {
  const scheme = new URL(reading.start).protocol;
  const numbers = new Map<string, number>();
  const plain = byteNumbers();
  const plainFound: (number | Message)[] = [];
  const others = new Map<string, number | Message>();
  const find = (asked: Pick<LogHit, 'target' | 'host'>): number | Message => {
    const found = reading.resolve(hrefOf(asked, scheme));
    if ('code' in found) return found;
    const number = numbers.get(found.address) ?? numbers.size;
    numbers.set(found.address, number);
    checkSize(plainFound.length + others.size);
    return number;
  };
  return {
    numbers,
    /** The number of the address of a plain line; or why it is none of the site. */
    ofPlain(line: Buffer, { targetFrom: from, targetTo: to }: PlainHit): number | Message {
      const found = () => find({ target: line.toString('latin1', from, to), host: null });
      if (to - from > MOST_REMEMBERED) return found();
      const spelled = plain.numberOf(line, from, to);
      if (spelled === plainFound.length) plainFound.push(found());
      return plainFound[spelled];
    },
    /** As `ofPlain`, of another line. */
    ofOther(hit: LogHit): number | Message {
      const key = keyOf(hit);
      const known = others.get(key);
      if (known !== undefined) return known;
      const found = find(hit);
      if (key.length <= MOST_REMEMBERED) others.set(ownCopy(key), found);
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
  const { read, readPlain } = logReader();
  const agentSays = agentTest();
  const addresses = addressFinder(reading);
  const counter = hitCounter();
  const plain = noPlainHit();
  const isOne = (says: boolean, client: () => string) => says && (isTheirs === null || isTheirs(client()));
  const take = (number: number, address: number | Message, asked: Asked, isCrawler: boolean) => {
    if (typeof address === 'number') counter.add(address, asked, isCrawler);
    else reading.reject(number, address);
  };
  await eachLine(bytes, (line, from, to, number) => {
    if (readPlain(line, from, to, plain)) {
      reading.count();
      const client = () => line.toString('latin1', plain.clientFrom, plain.clientTo);
      const isCrawler = isOne(agentSays(line, plain.agentFrom, plain.agentTo), client);
      return take(number, addresses.ofPlain(line, plain), plain, isCrawler);
    }
    const found = read(line.toString('latin1', from, to));
    if (found === null) return;
    reading.count();
    if (!found.ok) return reading.reject(number, found.reason);
    const { agent, client } = found.hit;
    const isCrawler = isOne(saysCrawler(agent), () => client);
    take(number, addresses.ofOther(found.hit), found.hit, isCrawler);
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
