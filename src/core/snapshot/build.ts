import { eachPackedLink, isResource, linkKinds } from '../links';
import type { LinkKind } from '../links';
import { clickDepths, countLinks, islandNumbers, reachOf } from '../reach';
import { fragmentName } from '../html';
import type { Crumb } from '../html';
import { addressParts } from '../url';
import { followRedirects, judge, verdicts } from '../verdict';
import type { FetchError, UnvisitedReason } from '../verdict';
import { textColumn } from './column';
import type { Column, NumberColumn } from './column';
import { sources } from './facts';
import type { FactName, Source } from './facts';
import { visitorGraph } from './snapshot';
import type { LinkColumns, Snapshot } from './snapshot';

/** What a crawl found at an address. Unknown is null. */
export interface FoundFacts {
  /** The robots.txt rule that closes it, described. */
  blockedBy: string | null;
  status: number | null;
  error: FetchError | null;
  contentType: string | null;
  html: boolean;
  bytes: number | null;
  responseMs: number | null;
  /** The address that an HTTP redirect or a meta refresh names. */
  redirectTo: string | null;
  title: string | null;
  description: string | null;
  h1: string | null;
  language: string | null;
  robots: string | null;
  noindex: boolean | null;
  pageNofollow: boolean | null;
  canonical: string | null;
  /** All page-level rules, with the agents they name. */
  directives: string | null;
  breadcrumb: Crumb[] | null;
  words: number | null;
  /** The first 128 bits of SHA-256 of the body, in hexadecimal digits. */
  contentHash: string | null;
  /** 64 bits (src/core/html/content.ts). */
  fingerprint: Uint8Array | null;
  /** What fragments can name, a line each; null when that was not asked. */
  ids: string | null;
  /** Requests made until it answered for good. */
  tries: number;
  /** Whether the body was longer than what is read. */
  truncated: boolean;
  /** Whether it was taken over from an earlier crawl. */
  carried: boolean;
  fetchedAt: Date | null;
}

export const nothingFound: FoundFacts = {
  blockedBy: null,
  status: null,
  error: null,
  contentType: null,
  html: false,
  bytes: null,
  responseMs: null,
  redirectTo: null,
  title: null,
  description: null,
  h1: null,
  language: null,
  robots: null,
  noindex: null,
  pageNofollow: null,
  canonical: null,
  directives: null,
  breadcrumb: null,
  words: null,
  contentHash: null,
  fingerprint: null,
  ids: null,
  tries: 1,
  truncated: false,
  carried: false,
  fetchedAt: null,
};

/** What became of an address that was only asked whether it answers. */
export interface Check {
  status: number | null;
  error: FetchError | null;
}

/** One known inside address as a crawl left it. */
export interface PageRecord extends FoundFacts {
  /** Number of the address, as links name it. */
  number: number;
  address: string;
  /** Null when it was fetched, or closed by robots.txt. */
  unvisited: UnvisitedReason | null;
  /** How many links it has. */
  linkCount: number;
}

/** What a snapshot holds besides pages and their links. */
export interface SnapshotRest {
  starts: readonly string[];
  /** Addresses that the person's own lists know. */
  listed: readonly string[];
  /** The addresses that links lead to and that are no pages: outside ones and resources, by number. */
  outside: ReadonlyMap<number, string>;
  /** What was found at those that were asked for, by number. */
  checks: ReadonlyMap<number, Check>;
  /** Texts by the numbers that links name them with; 0 is ''. */
  phrases: ReadonlyMap<number, string>;
  /** What sitemaps list, by number of the address. */
  listings: readonly { number: number; sitemap: string; line: number; lastmod: string | null }[];
}

const CLICK_KIND = linkKinds.indexOf('click');

/** Gives numbers from 0 in the order of asking. */
function numbering() {
  const numbers = new Map<number, number>();
  return {
    numbers,
    of(key: number): number {
      let number = numbers.get(key);
      if (number === undefined) numbers.set(key, (number = numbers.size));
      return number;
    },
  };
}

/** Makes room for the links of all pages, and lays them out page by page in any order. */
function linkLayout(pages: readonly PageRecord[], pageNumbers: ReadonlyMap<number, number>) {
  const outside = numbering();
  const phrases = numbering();
  phrases.of(0);
  const offsets = new Uint32Array(pages.length + 1);
  pages.forEach(({ linkCount }, page) => (offsets[page + 1] = offsets[page] + linkCount));
  const total = offsets[pages.length];
  const links: LinkColumns = {
    offsets,
    target: new Uint32Array(total),
    kind: new Uint8Array(total),
    element: new Uint8Array(total),
    landmark: new Uint8Array(total),
    anchor: new Uint32Array(total),
    rel: new Uint32Array(total),
    path: new Uint32Array(total),
    line: new Uint32Array(total),
    column: new Uint32Array(total),
    fragment: new Uint32Array(total),
    lost: new Uint8Array(total),
  };
  function add(number: number, packed: Uint8Array): void {
    let at = offsets[pageNumbers.get(number)!];
    eachPackedLink(packed, (kind, element, landmark, target, anchor, rel, path, fragment, line, column) => {
      links.target[at] = pageNumbers.get(target) ?? pages.length + outside.of(target);
      links.kind[at] = kind;
      links.element[at] = element;
      links.landmark[at] = landmark;
      links.anchor[at] = phrases.of(anchor);
      links.rel[at] = phrases.of(rel);
      links.path[at] = phrases.of(path);
      links.fragment[at] = phrases.of(fragment);
      links.line[at] = line;
      links.column[at] = column;
      at++;
    });
  }
  return { links, add, outside: outside.numbers, phrases: phrases.numbers };
}

const sourceOfKind = (kind: LinkKind): Source | null => {
  if (kind === 'click') return 'links';
  if (kind === 'refresh') return 'redirect';
  if (kind === 'redirect' || kind === 'canonical' || kind === 'hreflang') return kind;
  return isResource(kind) ? null : 'declared';
};

/** Which sources know each page, as the bits of `seen_in`. */
function seenIn(count: number, links: LinkColumns, known: Partial<Record<Source, readonly number[]>>): NumberColumn {
  const bit = (source: Source | null) => (source ? 1 << sources.indexOf(source) : 0);
  const bitOfKind = linkKinds.map((kind) => bit(sourceOfKind(kind)));
  const seen = new Int32Array(count);
  for (const source of sources) for (const page of known[source] ?? []) seen[page] |= bit(source);
  for (let page = 0; page < count; page++)
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
      const target = links.target[link];
      // A page that names itself was known before.
      if (target < count && target !== page) seen[target] |= bitOfKind[links.kind[link]];
    }
  return seen;
}

/**
 * Marks the click links whose fragment names nothing on their target, as far as that is known. An empty fragment and
 * `top` name the top of any page (HTML, "find a potential indicated element"); text directives name no element.
 * @returns how many there are on each page
 */
function findLostFragments(pages: readonly PageRecord[], links: LinkColumns, phrases: readonly string[]): Int32Array {
  const counts = new Int32Array(pages.length).fill(-1);
  const names = new Map<number, Set<string>>();
  const named = (page: number) => {
    let ids = names.get(page);
    if (!ids) names.set(page, (ids = new Set(pages[page].ids!.split('\n'))));
    return ids;
  };
  pages.forEach((record, page) => {
    if (record.html && record.ids !== null) counts[page] = 0;
    for (let link = links.offsets[page]; link < links.offsets[page + 1]; link++) {
      const to = links.target[link];
      const fragment = phrases[links.fragment[link]];
      if (!fragment || links.kind[link] !== CLICK_KIND || to >= pages.length || pages[to].ids === null) continue;
      if (/^top$/i.test(fragment) || fragment.includes(':~:')) continue;
      if (named(to).has(fragment) || named(to).has(fragmentName(fragment))) continue;
      links.lost[link] = 1;
      if (counts[page] >= 0) counts[page]++;
    }
  });
  return counts;
}

/** A snapshot in the making. */
export interface SnapshotBuilder {
  /** Lays out the packed links of one page, which name addresses and phrases by number. Each page comes once. */
  addLinks: (number: number, packed: Uint8Array) => void;
  /** The numbers of addresses that are no pages, and of phrases, that links have named so far. */
  named: () => { outside: number[]; phrases: number[] };
  finish: (rest: SnapshotRest) => Snapshot;
}

/**
 * Begins the snapshot of a finished crawl. Links are handed over page by page, so that they need not be held twice.
 * Pages are numbered in the order of their addresses (by code unit).
 * @param records every known inside address, once, in any order
 */
export function snapshotBuilder(records: readonly PageRecord[]): SnapshotBuilder {
  const pages = [...records].sort((a, b) => (a.address < b.address ? -1 : a.address > b.address ? 1 : 0));
  const pageNumbers = new Map(pages.map(({ number }, i) => [number, i]));
  const { links, add, outside, phrases } = linkLayout(pages, pageNumbers);
  return {
    addLinks: add,
    named: () => ({ outside: [...outside.keys()], phrases: [...phrases.keys()] }),
    finish: (rest) => {
      const texts = (numbers: ReadonlyMap<number, number>, of: ReadonlyMap<number, string>) =>
        Array.from(numbers.keys(), (number) => of.get(number) ?? '');
      const checks = Array.from(outside.keys(), (number) => rest.checks.get(number) ?? null);
      return measure(pages, pageNumbers, rest, {
        links,
        outside: texts(outside, rest.outside),
        checks,
        phrases: texts(phrases, rest.phrases),
      });
    },
  };
}

/** Works out the measures of a snapshot: depth, reach, islands, link counts, verdicts. */
function measure(
  pages: readonly PageRecord[],
  pageNumbers: ReadonlyMap<number, number>,
  input: SnapshotRest,
  { links, outside, checks, phrases }: Pick<Snapshot, 'links' | 'outside' | 'checks' | 'phrases'>,
): Snapshot {
  const count = pages.length;
  const pageByAddress = new Map(pages.map(({ address }, i) => [address, i]));
  const numbersOf = (addresses: readonly string[]) =>
    addresses.map((address) => pageByAddress.get(address)).filter((page) => page !== undefined);
  const starts = numbersOf(input.starts);

  const graph = visitorGraph(count, links);
  const { depth } = clickDepths(graph, starts);
  const counts = countLinks(graph);
  const reach = Int32Array.from(reachOf(depth, counts.pagesLinking));

  const nextHop = (page: number) => pageByAddress.get(pages[page].redirectTo ?? '') ?? -1;
  const chains = pages.map(({ redirectTo }, page) => {
    if (redirectTo === null) return null;
    const { final, hops, loop } = followRedirects(page, nextHop);
    if (loop) return { hops, reason: `A loop of ${hops} redirects.` };
    // A chain that leaves the known pages has one hop more, to the address outside.
    const beyond = pages[final].redirectTo;
    const all = hops + (beyond === null ? 0 : 1);
    const end = beyond ?? pages[final].address;
    return { hops: all, reason: all > 1 ? `${end} after ${all} redirects` : end };
  });
  const judgements = pages.map((page, i) => {
    const judgement = judge(page);
    const chain = judgement.verdict === 'redirect' ? chains[i] : null;
    return chain ? { ...judgement, reason: chain.reason } : judgement;
  });

  const listings = input.listings.flatMap(({ number, sitemap, line, lastmod }) => {
    const page = pageNumbers.get(number);
    return page === undefined ? [] : [{ page, sitemap, line, lastmod }];
  });
  const lastmods = new Map(listings.map(({ page, lastmod }) => [page, lastmod]));
  const parts = pages.map(({ address }) => addressParts(address));
  const text = (of: (page: PageRecord, i: number) => string | null) => textColumn(pages.map(of));
  const number = (of: (page: PageRecord, i: number) => number | null): NumberColumn =>
    Int32Array.from(pages, (page, i) => of(page, i) ?? -1);
  const flag = (of: (page: PageRecord) => boolean | null) =>
    number((page) => (of(page) === null ? null : Number(of(page))));

  const columns: Record<FactName, Column> = {
    url: text(({ address }) => address),
    host: text((_, i) => parts[i].host),
    path: text((_, i) => parts[i].path),
    query: text((_, i) => parts[i].query),
    section: text((_, i) => parts[i].section),
    status: number(({ status }) => status),
    content_type: text(({ contentType }) => contentType),
    bytes: number(({ bytes }) => bytes),
    response_ms: number(({ responseMs }) => responseMs),
    error: text(({ error }) => error),
    redirect_to: text(({ redirectTo }) => redirectTo),
    redirect_hops: number((_, i) => chains[i]?.hops ?? null),
    title: text(({ title }) => title),
    description: text(({ description }) => description),
    h1: text(({ h1 }) => h1),
    language: text(({ language }) => language),
    robots: text(({ robots }) => robots),
    robots_rule: text(({ blockedBy }) => blockedBy),
    noindex: flag(({ noindex }) => noindex),
    page_nofollow: flag(({ pageNofollow }) => pageNofollow),
    canonical: text(({ canonical }) => canonical),
    verdict: number((_, i) => verdicts.indexOf(judgements[i].verdict)),
    verdict_reason: text((_, i) => judgements[i].reason || null),
    seen_in: seenIn(count, links, { start: starts, sitemap: listings.map(({ page }) => page), list: numbersOf(input.listed) }), // prettier-ignore
    depth,
    reach,
    island: islandNumbers(graph, depth),
    links_in: counts.linksIn,
    pages_linking: counts.pagesLinking,
    // What a page links to is known only when it was read.
    links_out: number(({ html }, i) => (html ? counts.linksOut[i] : null)),
    pages_linked: number(({ html }, i) => (html ? counts.pagesLinked[i] : null)),
    external_links: number(({ html }, i) => (html ? counts.externalLinks[i] : null)),
    missing_fragments: findLostFragments(pages, links, phrases),
    words: number(({ words }) => words),
    content_hash: text(({ contentHash }) => contentHash),
    breadcrumb: text(({ breadcrumb }) => breadcrumb && breadcrumb.map(({ name }) => name).join(' › ')),
    page_rules: text(({ directives }) => directives),
    truncated: flag(({ status, truncated }) => (status === null ? null : truncated)),
    carried: flag(({ carried }) => carried),
    fetched_at: text(({ fetchedAt }) => fetchedAt && fetchedAt.toISOString().replace(/\.\d+Z/, 'Z')),
    sitemap_lastmod: text((_, i) => lastmods.get(i) ?? null),
  };
  return {
    count,
    starts,
    columns,
    links,
    outside,
    checks,
    phrases,
    listings: listings.map(({ page, sitemap, line }) => ({ page, sitemap, line })),
  };
}
