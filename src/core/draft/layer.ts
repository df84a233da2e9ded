/** What edits change of a view, as a layer over it. */
import { baseFacts } from '../facts';
import type { BaseFact } from '../facts';
import { linkFieldNames, numbersOf, phraseFields } from '../links';
import type { Link, LinkFieldName, LinkNumbers } from '../links';
import { linkFieldColumns, memoOf, once, spliced, withValues } from '../snapshot';
import type { Columns, FactValue, Layer, SiteFiles, Splice } from '../snapshot';
import type { View } from '../view';
import type { Changes, PutLink } from './changes';

const plainLink: Link = {
  kind: 'click',
  element: 'a',
  target: '',
  anchor: '',
  rel: '',
  placement: 'main',
  above: '',
  fragment: '',
  line: 0,
  column: 0,
};

const numbersIn = (texts: readonly string[]) => new Map(texts.map((text, i) => [text, i]));
const outsideNumbers = memoOf(['outside'], ({ outside }) => numbersIn(outside));
const phraseNumbers = memoOf(['phrases'], ({ phrases }) => numbersIn(phrases));

/** Numbers for texts: those that are known keep theirs, others are appended. */
function appending(known: readonly string[], numbers: ReadonlyMap<string, number>) {
  const own = new Map<string, number>();
  return {
    of(text: string): number {
      let number = numbers.get(text) ?? own.get(text);
      if (number === undefined) own.set(text, (number = known.length + own.size));
      return number;
    },
    texts: () => (own.size ? [...known, ...own.keys()] : (known as string[])),
  };
}

/** The columns that differ: all where pages are appended, or those of the facts that edits change. */
function changedColumns(view: View, { facts, added, count }: Changes): Layer['columns'] {
  const given = new Map<BaseFact, Map<number, FactValue>>(
    added.length ? baseFacts.map((name) => [name, new Map()]) : [],
  );
  for (const [page, changed] of facts)
    for (const [name, value] of Object.entries(changed) as [BaseFact, FactValue][])
      given.set(name, (given.get(name) ?? new Map<number, FactValue>()).set(page, value));
  added.forEach((address, i) => given.get('url')!.set(view.count + i, address));
  const column = <N extends BaseFact>(name: N, values: ReadonlyMap<number, FactValue>): Columns[N] =>
    withValues(name, view.column(name), count(), values);
  return Object.fromEntries([...given].map(([name, values]) => [name, () => column(name, values)]));
}

/** What is known of the words of pages, where those are of another page or of none. */
function wordParts(view: View, { likePages, count }: Changes): Layer {
  const likeOf = (page: number) => {
    const like = likePages.get(page);
    return like === undefined ? (page < view.count ? page : null) : like;
  };
  return {
    fingerprints: () => {
      const all = new Uint32Array(2 * count());
      all.set(view.fingerprints);
      for (const [page, like] of likePages)
        for (const half of [0, 1]) all[2 * page + half] = like === null ? 0 : view.fingerprints[2 * like + half];
      return all;
    },
    wordFilters: () => {
      const { offsets, bytes } = view.wordFilters;
      const filterOf = (like: number | null) =>
        like === null ? bytes.subarray(0, 0) : bytes.subarray(offsets[like], offsets[like + 1]);
      const ends = new Uint32Array(count() + 1);
      for (let page = 0; page < count(); page++) ends[page + 1] = ends[page] + filterOf(likeOf(page)).length;
      const all = new Uint8Array(ends[count()]);
      for (let page = 0; page < count(); page++) all.set(filterOf(likeOf(page)), ends[page]);
      return { offsets: ends, bytes: all };
    },
  };
}

/** The links of a view without those that are dropped and with those that are put, and the texts that they name. */
function changedLinks(view: View, changes: Changes) {
  const { links } = view;
  const count = changes.count();
  const outside = appending(view.outside, outsideNumbers(view));
  const phrases = appending(view.phrases, phraseNumbers(view));
  const targetNumber = (target: number | string) => (typeof target === 'string' ? count + outside.of(target) : target);
  const numbersOfPut = ({ like, fields, target }: PutLink): LinkNumbers => {
    const fresh = numbersOf({ ...plainLink, ...fields }, () => targetNumber(target), phrases.of);
    if (like === null) return fresh;
    const own = Object.fromEntries(linkFieldNames.map((name) => [name, links[name][like]])) as LinkNumbers;
    for (const name of phraseFields) if (name in fields) own[name] = fresh[name];
    return { ...own, target: fresh.target };
  };
  const put = [...changes.links()].sort((a, b) => a.source - b.source);
  const rows = put.map(numbersOfPut);
  const endOf = (page: number) => links.offsets[Math.min(page + 1, view.count)];
  // What is put at the end of a page comes before what is dropped at the beginning of the next one.
  const splices: Splice[] = [
    ...put.map(({ source }) => ({ at: endOf(source), out: 0, in: 1 })),
    ...[...changes.dropped].map((at) => ({ at, out: 1, in: 0 })),
  ].sort((a, b) => a.at - b.at || a.out - b.out);
  const difference = new Int32Array(count + 1);
  for (const { source } of put) difference[source + 1]++;
  const sourceOf = sourceFinder(links.offsets);
  for (const link of changes.dropped) difference[sourceOf(link) + 1]--;
  const offsets = new Uint32Array(count + 1);
  let moved = 0;
  for (let page = 0; page <= count; page++) {
    moved += difference[page];
    offsets[page] = links.offsets[Math.min(page, view.count)] + moved;
  }
  // Pages that are appended take the numbers that the first addresses off the site had.
  const shift = count - view.count;
  const renumbered = view.outside.map((address, i) => {
    const page = shift ? changes.pageAt(address) : -1;
    return page < 0 ? count + i : page;
  });
  const target = shift ? links.target.map((to) => (to < view.count ? to : renumbered[to - view.count])) : links.target;
  const column = (name: LinkFieldName) =>
    spliced(
      name === 'target' ? target : links[name],
      splices,
      rows.map((row) => row[name]),
    );
  return { links: { offsets, ...linkFieldColumns(column) }, outside: outside.texts(), phrases: phrases.texts() };
}

/** Finds the page that a link is on. */
function sourceFinder(offsets: Uint32Array) {
  return (link: number) => {
    let [low, high] = [0, offsets.length - 1];
    while (low + 1 < high) {
      const middle = (low + high) >> 1;
      if (offsets[middle] <= link) low = middle;
      else high = middle;
    }
    return low;
  };
}

const withRobots = (files: SiteFiles, robots: ReadonlyMap<string, string>): SiteFiles => ({
  ...files,
  robots: files.robots.map((file) => ({ ...file, body: robots.get(file.origin) ?? file.body })),
});

/** The layer of what edits change. */
export function layerOf(view: View, changes: Changes): Layer {
  const made = once(() => changedLinks(view, changes));
  const hasLinks = changes.added.length > 0 || changes.dropped.size > 0 || changes.links().length > 0;
  return {
    ...(changes.added.length ? { count: changes.count() } : {}),
    ...(changes.added.length || changes.likePages.size ? wordParts(view, changes) : {}),
    columns: changedColumns(view, changes),
    ...(hasLinks
      ? {
          links: () => made().links,
          outside: () => made().outside,
          phrases: () => made().phrases,
          checks: () => made().outside.map((_, i) => view.checks[i] ?? null),
        }
      : {}),
    ...(changes.robots.size ? { files: () => withRobots(view.files, changes.robots) } : {}),
  };
}
