import { linkFacts, verdicts } from '../facts';
import type { LinkFactName } from '../facts';
import type { Groups } from '../grouping';
import { groupByAnchor, groupByEdit } from '../linkGroups';
import { CLICK_KIND, linkElements, linkFaults, linkKinds, placements } from '../links';
import { nofollowRels } from '../reach';
import { quote } from '../selection/print';
import { finalTargetsOf } from '../share';
import { addressAt, memoOf, sourcesOf } from '../snapshot';
import type { WholeNumbers } from '../snapshot';
import { addressParts } from '../url';
import { listColumns } from './columns';
import { cellsBy, numberCells, ranksOf, textCells } from './list';
import type { Cells, List } from './list';
import type { View } from '../view';

/** Places in their order of what links name by number. */
const phraseRanks = memoOf(['phrases'], ({ phrases }) => ranksOf(phrases));
const outsideRanks = memoOf(['outside'], ({ outside }) => ranksOf(outside));

const setOf = (bits: number, values: readonly string[]) => values.filter((_, bit) => bits & (1 << bit));

/** For each link 1 when a search crawler follows it. */
function followedTest(snapshot: View): (link: number) => number {
  const { links, phrases, column } = snapshot;
  const source = sourcesOf(snapshot);
  const nofollow = nofollowRels(phrases);
  const pageNofollow = column('page_nofollow');
  return (link) =>
    Number(links.kind[link] === CLICK_KIND && nofollow[links.rel[link]] === 0 && pageNofollow[source[link]] !== 1);
}

/** Cells that tell of single links; `linkOf` gives the link that a row stands for. */
export function linkCells(
  snapshot: View,
  linkOf: (row: number) => number,
): Record<Exclude<LinkFactName, 'external' | 'self' | 'relative'>, () => Cells> {
  const { count, links, phrases, column, checks } = snapshot;
  const { target } = links;
  const { codes } = column('url');
  const source = sourcesOf(snapshot);
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
  const texts = (codes: WholeNumbers) => (): Cells => {
    const ranks = phraseRanks(snapshot);
    return { key: (row) => ranks[codes[linkOf(row)]], value: (row) => phrases[codes[linkOf(row)]] };
  };
  const addresses = (of: (link: number) => number) => (): Cells => ({
    // Inside addresses come first.
    key: (row) => {
      const page = of(linkOf(row));
      return page < 0 ? page : page < count ? codes[page] : count + 1 + outsideRanks(snapshot)[page - count];
    },
    value: (row) => {
      const page = of(linkOf(row));
      return page < 0 ? null : addressAt(snapshot, page);
    },
  });
  const isFollowed = followedTest(snapshot);
  const faults = (row: number) => links.faults[linkOf(row)];
  return {
    source: addresses((link) => source[link]),
    target: addresses((link) => target[link]),
    anchor: texts(links.anchor),
    rel: texts(links.rel),
    above: texts(links.above),
    fragment: texts(links.fragment),
    kind: choices((link) => links.kind[link], linkKinds),
    element: choices((link) => links.element[link], linkElements),
    placement: choices((link) => links.placement[link], placements),
    line: numbers((link) => links.line[link] || -1),
    column: numbers((link) => links.column[link] || -1),
    followed: () => ({
      key: (row) => isFollowed(linkOf(row)),
      value: (row) => isFollowed(linkOf(row)) === 1,
    }),
    faults: () => ({ key: faults, value: (row) => setOf(faults(row), linkFacts.faults.values) }),
    target_verdict: choices((link) => column('verdict')[target[link]] ?? -1, verdicts),
    target_status: numbers((link) =>
      target[link] < count ? column('status')[target[link]] : (checks[target[link] - count]?.status ?? -1),
    ),
    // Where redirects and canonicals lead, when that is another page.
    ends_at: addresses((link) => {
      const to = target[link];
      const end = to < count ? finalTargetsOf(snapshot)[to] : -1;
      return end === to ? -1 : end;
    }),
    source_share: numbers((link) => column('share')[source[link]]),
  };
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
    followed[groups.of[i]] += isFollowed(link);
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
    unfollowed[host] += 1 - isFollowed(link);
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
