import { groupByAnchor, groupByEdit } from '../edits';
import type { Groups } from '../edits';
import { linkElements, linkFaults, linkKinds, relSaysNofollow } from '../links';
import { placements, quote, sourcesOfLinks } from '../selection';
import { settle } from '../share';
import { addressAt } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { addressParts } from '../url';
import { verdicts } from '../verdict';
import { listColumns } from './columns';
import { cellsBy, numberCells, ranksOf, textCells } from './list';
import type { Cells, List } from './list';

/** What the lists of links ask of a snapshot again and again. */
interface Reader {
  source: Uint32Array;
  settled: () => Int32Array;
  phraseRanks: () => Uint32Array;
  outsideRanks: () => Uint32Array;
}
const readers = new WeakMap<Snapshot, Reader>();

function readerOf(snapshot: Snapshot): Reader {
  let reader = readers.get(snapshot);
  if (!reader) {
    let [settled, phraseRanks, outsideRanks] = [] as (Int32Array | Uint32Array | undefined)[];
    reader = {
      source: sourcesOfLinks(snapshot),
      settled: () => (settled ??= settle(snapshot)) as Int32Array,
      phraseRanks: () => (phraseRanks ??= ranksOf(snapshot.phrases)) as Uint32Array,
      outsideRanks: () => (outsideRanks ??= ranksOf(snapshot.outside)) as Uint32Array,
    };
    readers.set(snapshot, reader);
  }
  return reader;
}

/** Cells that tell of single links; `linkOf` gives the link that a row stands for. */
function linkCells(snapshot: Snapshot, linkOf: (row: number) => number): Record<string, () => Cells> {
  const { count, links, phrases, columns, checks } = snapshot;
  const reader = readerOf(snapshot);
  const numbers = (of: (link: number) => number) => (): Cells => ({
    key: (row) => of(linkOf(row)),
    value: (row) => {
      const number = of(linkOf(row));
      return number < 0 ? null : number;
    },
  });
  const choices = (of: (link: number) => number, values: readonly string[]) => (): Cells => ({
    key: (row) => of(linkOf(row)),
    value: (row) => values[of(linkOf(row))] ?? null,
  });
  const texts = (codes: Uint32Array) => (): Cells => ({
    key: (row) => reader.phraseRanks()[codes[linkOf(row)]],
    value: (row) => phrases[codes[linkOf(row)]],
  });
  const addresses = (of: (link: number) => number) => (): Cells => ({
    // Inside addresses come first; pages are numbered in the order of theirs.
    key: (row) => {
      const target = of(linkOf(row));
      return target < count ? target : count + reader.outsideRanks()[target - count];
    },
    value: (row) => {
      const target = of(linkOf(row));
      return target < 0 ? null : addressAt(snapshot, target);
    },
  });
  const { target } = links;
  const status = columns.status as Int32Array;
  const verdict = columns.verdict as Int32Array;
  const share = columns.share as Float64Array;
  const nofollow = Uint8Array.from(phrases, (text) => Number(relSaysNofollow(text)));
  const pageNofollow = columns.page_nofollow as Int32Array;
  const click = linkKinds.indexOf('click');
  const followed = (link: number) =>
    Number(links.kind[link] === click && nofollow[links.rel[link]] === 0 && pageNofollow[reader.source[link]] !== 1);
  const faults = (link: number) => links.faults[link];
  return {
    source: addresses((link) => reader.source[link]),
    target: addresses((link) => target[link]),
    anchor: texts(links.anchor),
    rel: texts(links.rel),
    above: texts(links.path),
    fragment: texts(links.fragment),
    kind: choices((link) => links.kind[link], linkKinds),
    element: choices((link) => links.element[link], linkElements),
    placement: choices((link) => links.landmark[link], placements),
    line: numbers((link) => links.line[link] || -1),
    column: numbers((link) => links.column[link] || -1),
    followed: () => ({ key: (row) => followed(linkOf(row)), value: (row) => followed(linkOf(row)) === 1 }),
    faults: () => ({
      key: (row) => faults(linkOf(row)),
      value: (row) => linkFaults.filter((_, bit) => faults(linkOf(row)) & (1 << bit)),
    }),
    target_verdict: choices((link) => (target[link] < count ? verdict[target[link]] : -1), verdicts),
    target_status: numbers((link) =>
      target[link] < count ? status[target[link]] : (checks[target[link] - count]?.status ?? -1),
    ),
    // Where redirects and canonicals lead, when that is another page.
    ends_at: addresses((link) => {
      const to = target[link];
      const end = to < count ? reader.settled()[to] : -1;
      return end === to ? -1 : end;
    }),
    source_share: () => ({
      key: (row) => share[reader.source[linkOf(row)]],
      value: (row) => Math.max(0, share[reader.source[linkOf(row)]]),
    }),
  };
}

/** The links of a selection, one a row. A row is the number of a link. */
export const linkList = (snapshot: Snapshot, chosen: Uint32Array): List => ({
  columns: listColumns.links,
  rows: chosen,
  cells: cellsBy(linkCells(snapshot, (link) => link)),
  selectOf: () => '',
});

/** What is counted of groups of links. */
function tally(snapshot: Snapshot, chosen: Uint32Array, { count, of }: Pick<Groups, 'count' | 'of'>) {
  const { source } = readerOf(snapshot);
  const links = new Uint32Array(count);
  const pages = new Uint32Array(count);
  const last = new Int32Array(count).fill(-1);
  for (let i = 0; i < chosen.length; i++) {
    const group = of[i];
    const page = source[chosen[i]];
    links[group]++;
    // Links come in the order of their pages.
    if (last[group] !== page) pages[group]++;
    last[group] = page;
  }
  return { links, pages };
}

/** Those on most pages first. */
const mostFirst = ({ links, pages }: ReturnType<typeof tally>) =>
  Uint32Array.from(links.keys()).sort((a, b) => pages[b] - pages[a] || links[b] - links[a] || a - b);

/** The links of a selection, grouped by the edit that mends them. A row is the number of a group. */
export function editList(snapshot: Snapshot, chosen: Uint32Array): List {
  const groups = groupByEdit(snapshot, chosen);
  const counts = tally(snapshot, chosen, groups);
  const { links, phrases } = snapshot;
  return {
    columns: listColumns.edits,
    rows: mostFirst(counts),
    cells: cellsBy({
      ...linkCells(snapshot, (group) => groups.first[group]),
      links: () => numberCells(counts.links),
      pages: () => numberCells(counts.pages),
    }),
    selectOf: (group) => {
      const link = groups.first[group];
      return `target = ${quote(addressAt(snapshot, links.target[link]))} and anchor = ${quote(phrases[links.anchor[link]])} and above = ${quote(phrases[links.path[link]])} and placement = ${placements[links.landmark[link]]}`;
    },
  };
}

/** The links of a selection, grouped by words and target. A row is the number of a group. */
export function anchorList(snapshot: Snapshot, chosen: Uint32Array): List {
  const groups = groupByAnchor(snapshot, chosen);
  const counts = tally(snapshot, chosen, groups);
  const { links, phrases } = snapshot;
  const where = new Uint32Array(groups.count);
  const faults = new Uint32Array(groups.count);
  const followed = new Uint32Array(groups.count);
  const single = linkCells(snapshot, (link) => link);
  const isFollowed = single.followed().key;
  chosen.forEach((link, i) => {
    where[groups.of[i]] |= 1 << links.landmark[link];
    faults[groups.of[i]] |= links.faults[link];
    followed[groups.of[i]] += isFollowed(link);
  });
  const set = (bits: Uint32Array, values: readonly string[]) => (): Cells => ({
    key: (row) => bits[row],
    value: (row) => values.filter((_, bit) => bits[row] & (1 << bit)),
  });
  return {
    columns: listColumns.anchors,
    rows: mostFirst(counts),
    cells: cellsBy({
      ...linkCells(snapshot, (group) => groups.first[group]),
      links: () => numberCells(counts.links),
      pages: () => numberCells(counts.pages),
      placements: set(where, placements),
      faults: set(faults, linkFaults),
      followed_links: () => numberCells(followed),
    }),
    selectOf: (group) => {
      const link = groups.first[group];
      return `target = ${quote(addressAt(snapshot, links.target[link]))} and anchor = ${quote(phrases[links.anchor[link]])}`;
    },
  };
}

/** The links of a selection, grouped by the host they lead to. A row is the number of a group. */
export function hostList(snapshot: Snapshot, chosen: Uint32Array): List {
  const { count, links, checks } = snapshot;
  const { source } = readerOf(snapshot);
  const hosts: string[] = [];
  const numberOf = new Map<string, number>();
  const hostOf = new Map<number, number>();
  const first: number[] = [];
  const of = new Uint32Array(chosen.length);
  const targets: number[] = [];
  const checked: number[] = [];
  const failing: number[] = [];
  const unfollowed: number[] = [];
  const isFollowed = linkCells(snapshot, (link) => link).followed().key;
  chosen.forEach((link, i) => {
    const target = links.target[link];
    let host = hostOf.get(target);
    if (host === undefined) {
      const name = hostName(addressAt(snapshot, target));
      host = numberOf.get(name);
      if (host === undefined) {
        host = hosts.push(name) - 1;
        numberOf.set(name, host);
        first[host] = link;
        targets[host] = checked[host] = failing[host] = unfollowed[host] = 0;
      }
      hostOf.set(target, host);
      targets[host]++;
      const check = target < count ? null : checks[target - count];
      if (check) checked[host]++;
      if (check && (check.error !== null || (check.status ?? 0) >= 400)) failing[host]++;
    }
    of[i] = host;
    unfollowed[host] += 1 - isFollowed(link);
  });
  const counts = tally(snapshot, chosen, { count: hosts.length, of });
  return {
    columns: listColumns.hosts,
    rows: mostFirst(counts),
    cells: cellsBy({
      host: () => textCells(hosts),
      links: () => numberCells(counts.links),
      pages: () => numberCells(counts.pages),
      targets: () => numberCells(targets),
      checked: () => numberCells(checked),
      failing: () => numberCells(failing),
      unfollowed: () => numberCells(unfollowed),
      source: () => ({ key: (row) => source[first[row]], value: (row) => addressAt(snapshot, source[first[row]]) }),
    }),
    selectOf: (row) => {
      const name = hosts[row];
      if (!name || name.endsWith(':')) return name ? `target starts ${quote(name)}` : 'not target has ":"';
      const starts = ['http://', 'https://'].map((scheme) => `target starts ${quote(`${scheme}${name}/`)}`);
      return `(${starts.join(' or ')})`;
    },
  };
}

/** The host of an address; its scheme for `mailto:` and the like; '' when it cannot be read. */
function hostName(address: string): string {
  if (/^https?:\/\//.test(address)) return addressParts(address).host;
  return /^[a-z][a-z0-9+.-]*:/i.exec(address)?.[0] ?? '';
}
