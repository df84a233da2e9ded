/** What became of each page from one crawl to another. */
import { verdicts } from '../facts';
import type { ColumnName } from '../facts';
import { addressAt, factAt, textAt } from '../snapshot';
import type { FactValue, Snapshot } from '../snapshot';

/**
 * `added`, `removed`: known to one crawl only. `gone`: answered 2xx, and now 404 or 410. `returned`: answers 2xx again, after 404,
 * 410 or a redirect. `moved`: answered 2xx and redirects now, or has the content that only this address had then and only
 * another has now. `changed`: facts differ. Every page is of one class.
 */
export const pageClasses = ['added', 'removed', 'gone', 'returned', 'moved', 'changed', 'same'] as const;
export type PageClass = (typeof pageClasses)[number];

/** The facts that are compared. */
export const comparedFacts = [
  ...(['status', 'verdict', 'canonical', 'title', 'h1', 'depth', 'reach', 'share'] as const),
  ...(['links_in', 'links_out', 'word_count', 'content_hash'] as const),
] satisfies ColumnName[];
export type ComparedFact = (typeof comparedFacts)[number];

export interface FactChange {
  fact: ComparedFact;
  before: FactValue;
  after: FactValue;
}

export interface PageChange {
  address: string;
  /** Its number in each crawl; −1 where it is not known. */
  old: number;
  fresh: number;
  change: PageClass;
  /** Where a moved page is now; null for the address that it has come to, and for other classes. */
  to: string | null;
  /** What differs; none where only one crawl knows the page. */
  facts: FactChange[];
}

/** Gives an address the form in which both crawls are compared, such as that of another host. */
export type AddressMap = (address: string) => string;

/** Share moves a little everywhere: a change is told from so large a part of it on, and so large a distance. */
const SHARE_FACTOR = 1.5;
const SHARE_DISTANCE = 0.1;

function differs(fact: ComparedFact, before: FactValue, after: FactValue): boolean {
  if (fact !== 'share' || typeof before !== 'number' || typeof after !== 'number') return before !== after;
  const [low, high] = [Math.min(before, after), Math.max(before, after)];
  return high - low >= SHARE_DISTANCE && high >= SHARE_FACTOR * low;
}

const mapped = (value: FactValue, map: AddressMap) => (typeof value === 'string' && value ? map(value) : value);

function factsThatDiffer(old: Snapshot, fresh: Snapshot, [a, b]: [number, number], map: AddressMap): FactChange[] {
  return comparedFacts.flatMap((fact) => {
    const read = (snapshot: Snapshot, page: number) => {
      const value = factAt(snapshot, fact, page);
      return fact === 'canonical' ? mapped(value, map) : value;
    };
    const [before, after] = [read(old, a), read(fresh, b)];
    return differs(fact, before, after) ? [{ fact, before, after }] : [];
  });
}

type Answer = 'here' | 'missing' | 'redirect' | 'other';
function answerOf({ columns: { status, verdict } }: Snapshot, page: number): Answer {
  if (verdicts[verdict[page]] === 'redirect') return 'redirect';
  if (status[page] >= 200 && status[page] < 300) return 'here';
  return status[page] === 404 || status[page] === 410 ? 'missing' : 'other';
}

function classOf(before: Answer, after: Answer, isEqual: boolean): PageClass {
  if (before === 'here' && after === 'missing') return 'gone';
  if (before === 'here' && after === 'redirect') return 'moved';
  if (after === 'here' && (before === 'missing' || before === 'redirect')) return 'returned';
  return isEqual ? 'same' : 'changed';
}

/** The pages of some that were read, by their content, where only one of them has it. */
function byContent(snapshot: Snapshot, pages: readonly [address: string, page: number][]): Map<string, string> {
  const found = new Map<string, string | null>();
  for (const [address, page] of pages) {
    const hash = snapshot.columns.html[page] === 1 ? textAt(snapshot, 'content_hash', page) : null;
    if (hash && snapshot.columns.status[page] === 200) found.set(hash, found.has(hash) ? null : address);
  }
  return new Map([...found].flatMap(([hash, address]) => (address === null ? [] : [[hash, address] as const])));
}

const pagesOf = (snapshot: Snapshot, map: AddressMap) =>
  new Map(Array.from({ length: snapshot.count }, (_, page) => [map(addressAt(snapshot, page)), page] as const));

/** Compares the pages of two crawls, in the order of their addresses. @param map applied to the addresses of both */
export function comparePages(old: Snapshot, fresh: Snapshot, map: AddressMap = (address) => address): PageChange[] {
  const [before, after] = [pagesOf(old, map), pagesOf(fresh, map)];
  const onlyIn = (here: ReadonlyMap<string, number>, there: ReadonlyMap<string, number>) =>
    [...here].filter(([address]) => !there.has(address));
  const left = byContent(old, onlyIn(before, after));
  const come = byContent(fresh, onlyIn(after, before));
  const movedTo = new Map([...left].flatMap(([hash, address]) => (come.has(hash) ? [[address, come.get(hash)!]] : [])));
  const arrived = new Set(movedTo.values());
  return [...new Set([...before.keys(), ...after.keys()])].sort().map((address): PageChange => {
    const [a, b] = [before.get(address) ?? -1, after.get(address) ?? -1];
    const page = { address, old: a, fresh: b, to: null, facts: [] };
    if (b < 0) return { ...page, change: movedTo.has(address) ? 'moved' : 'removed', to: movedTo.get(address) ?? null };
    if (a < 0) return { ...page, change: arrived.has(address) ? 'moved' : 'added' };
    const facts = factsThatDiffer(old, fresh, [a, b], map);
    const change = classOf(answerOf(old, a), answerOf(fresh, b), facts.length === 0);
    const end = change === 'moved' ? textAt(fresh, 'redirect_end', b) : null;
    return { ...page, change, facts, to: end && map(end) };
  });
}
