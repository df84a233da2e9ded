import type { LinkFactName } from '../facts';
import type { Groups } from '../grouping';
import { groupByAnchor, groupByEdit } from '../linkGroups';
import { followedTest, linkValues } from '../linkFacts';
import type { LinkValues } from '../linkFacts';
import { linkFaults, placements } from '../links';
import { quote } from '../selection/print';
import { addressAt, memoOf, sourcesOf } from '../snapshot';
import { addressParts } from '../url';
import { listColumns } from './columns';
import { cellsBy, numberCells, ranksOf, textCells } from './list';
import type { Cells, List } from './list';
import type { View } from '../view';

/** Places in their order of what links name by number. */
const phraseRanks = memoOf(['phrases'], ({ phrases }) => ranksOf(phrases));
const outsideRanks = memoOf(['outside'], ({ outside }) => ranksOf(outside));

const setOf = (bits: number, values: readonly string[]) => values.filter((_, bit) => bits & (1 << bit));

/** The cells of a fact; `linkOf` gives the link that a row stands for. */
function cellsOf(snapshot: View, values: LinkValues, linkOf: (row: number) => number): Cells {
  const numbers = (of: (link: number) => number, choices?: readonly string[]): Cells => ({
    key: (row) => of(linkOf(row)),
    value: (row) => {
      const number = of(linkOf(row));
      return choices ? (choices[number] ?? null) : number < 0 ? null : number;
    },
  });
  switch (values.kind) {
    case 'phrase': {
      const ranks = phraseRanks(snapshot);
      return {
        key: (row) => ranks[values.codes[linkOf(row)]],
        value: (row) => values.values[values.codes[linkOf(row)]],
      };
    }
    case 'choice':
      return numbers((link) => values.codes[link], values.values);
    case 'address': {
      const { count } = snapshot;
      const { codes } = snapshot.column('url');
      const { ofLink } = values;
      return {
        // Inside addresses come first.
        key: (row) => {
          const page = ofLink(linkOf(row));
          return page < 0 ? page : page < count ? codes[page] : count + 1 + outsideRanks(snapshot)[page - count];
        },
        value: (row) => {
          const page = ofLink(linkOf(row));
          return page < 0 ? null : addressAt(snapshot, page);
        },
      };
    }
    case 'number':
      return numbers(values.ofLink);
    case 'target': {
      const { target } = snapshot.links;
      return numbers((link) => values.ofTarget(target[link]), values.values);
    }
    case 'source': {
      const source = sourcesOf(snapshot);
      return numbers((link) => values.ofSource(source[link]));
    }
    case 'flag':
      return {
        key: (row) => Number(values.ofLink(linkOf(row))),
        value: (row) => values.ofLink(linkOf(row)),
      };
    case 'set':
      return {
        key: (row) => values.bits[linkOf(row)],
        value: (row) => setOf(values.bits[linkOf(row)], values.values),
      };
  }
}

/** Cells that tell of single links; `linkOf` gives the link that a row stands for. */
export function linkCells(snapshot: View, linkOf: (row: number) => number): Record<LinkFactName, () => Cells> {
  const values = Object.entries(linkValues(snapshot));
  return Object.fromEntries(
    values.map(([name, valuesOf]) => [name, () => cellsOf(snapshot, valuesOf(), linkOf)]),
  ) as Record<LinkFactName, () => Cells>;
}

/** The links of a selection, one a row. A row is the number of a link. */
export const linkList = (snapshot: View, chosen: Uint32Array): List => ({
  columns: listColumns.links,
  rows: chosen,
  bytes: chosen.byteLength,
  cells: cellsBy(linkCells(snapshot, (link) => link)),
  selectOf: () => '',
});

/** What is counted of groups of links. */
function tally(snapshot: View, chosen: Uint32Array, { count, of }: Pick<Groups, 'count' | 'of'>) {
  const source = sourcesOf(snapshot);
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

/** Bytes of a list of groups: the group of each link, and some numbers for each group. */
const groupBytes = (chosen: Uint32Array, groups: number) => chosen.byteLength + 48 * groups;

/** Those on most pages first. */
const mostFirst = ({ links, pages }: ReturnType<typeof tally>) =>
  Uint32Array.from(links.keys()).sort((a, b) => pages[b] - pages[a] || links[b] - links[a] || a - b);

/** The links of a selection, grouped by the edit that mends them. A row is the number of a group. */
export function editList(snapshot: View, chosen: Uint32Array): List {
  const groups = groupByEdit(snapshot, chosen);
  const counts = tally(snapshot, chosen, groups);
  const { links, phrases } = snapshot;
  return {
    columns: listColumns.edits,
    rows: mostFirst(counts),
    bytes: groupBytes(chosen, groups.count),
    cells: cellsBy({
      ...linkCells(snapshot, (group) => groups.first[group]),
      links: () => numberCells(counts.links),
      pages: () => numberCells(counts.pages),
    }),
    selectOf: (group) => {
      const link = groups.first[group];
      return [
        `target = ${quote(addressAt(snapshot, links.target[link]))}`,
        `anchor = ${quote(phrases[links.anchor[link]])}`,
        `above = ${quote(phrases[links.above[link]])}`,
        `placement = ${placements[links.placement[link]]}`,
      ].join(' and ');
    },
  };
}

/** The links of a selection, grouped by words and target. A row is the number of a group. */
export function anchorList(snapshot: View, chosen: Uint32Array): List {
  const groups = groupByAnchor(snapshot, chosen);
  const counts = tally(snapshot, chosen, groups);
  const { links, phrases } = snapshot;
  const where = new Uint32Array(groups.count);
  const faults = new Uint32Array(groups.count);
  const followed = new Uint32Array(groups.count);
  const isFollowed = followedTest(snapshot);
  chosen.forEach((link, i) => {
    where[groups.of[i]] |= 1 << links.placement[link];
    faults[groups.of[i]] |= links.faults[link];
    followed[groups.of[i]] += Number(isFollowed(link));
  });
  const set = (bits: Uint32Array, values: readonly string[]) => (): Cells => ({
    key: (row) => bits[row],
    value: (row) => setOf(bits[row], values),
  });
  return {
    columns: listColumns.anchors,
    rows: mostFirst(counts),
    bytes: groupBytes(chosen, groups.count),
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
export function hostList(snapshot: View, chosen: Uint32Array): List {
  const { count, links, checks } = snapshot;
  const source = sourcesOf(snapshot);
  const hosts: string[] = [];
  const numberOf = new Map<string, number>();
  const hostOf = new Map<number, number>();
  const first: number[] = [];
  const of = new Uint32Array(chosen.length);
  const targets: number[] = [];
  const checked: number[] = [];
  const failing: number[] = [];
  const unfollowed: number[] = [];
  const isFollowed = followedTest(snapshot);
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
    unfollowed[host] += Number(!isFollowed(link));
  });
  const counts = tally(snapshot, chosen, { count: hosts.length, of });
  return {
    columns: listColumns.hosts,
    rows: mostFirst(counts),
    bytes: groupBytes(chosen, hosts.length),
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
