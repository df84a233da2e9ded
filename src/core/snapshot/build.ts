import { eachPackedLink, numbering } from '../links';
import type { Crumb } from '../html';
import type { PlacementWeights } from '../share';
import type { FetchError, UnvisitedReason } from '../verdict';
import { measure } from './measure';
import type { LinkColumns, SiteFiles, Snapshot } from './snapshot';

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

/**
 * Makes the record of an address. Written out member by member: an object that is spread together from so many members
 * takes five times the memory.
 */
export function pageRecord(
  { number, address, unvisited, linkCount }: Omit<PageRecord, keyof FoundFacts>,
  found: FoundFacts,
): PageRecord {
  return {
    number,
    address,
    unvisited,
    linkCount,
    blockedBy: found.blockedBy,
    status: found.status,
    error: found.error,
    contentType: found.contentType,
    html: found.html,
    bytes: found.bytes,
    responseMs: found.responseMs,
    redirectTo: found.redirectTo,
    title: found.title,
    description: found.description,
    h1: found.h1,
    language: found.language,
    robots: found.robots,
    noindex: found.noindex,
    pageNofollow: found.pageNofollow,
    canonical: found.canonical,
    directives: found.directives,
    breadcrumb: found.breadcrumb,
    words: found.words,
    contentHash: found.contentHash,
    fingerprint: found.fingerprint,
    ids: found.ids,
    tries: found.tries,
    truncated: found.truncated,
    carried: found.carried,
    fetchedAt: found.fetchedAt,
  };
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
  files: SiteFiles;
  reading: Reading;
}

/** Settings of how a crawl is read, once it is there. */
export interface Reading {
  /** Names of sections by patterns of addresses, the first that matches; else the first segment of the path is the section. */
  sections: readonly { pattern: string; name: string }[];
  /** In how many of 64 bits fingerprints of near-duplicates may differ. */
  nearTolerance: number;
  weights: PlacementWeights;
}

/** Makes room for the links of all pages, and lays them out page by page in any order. */
function linkLayout(pages: readonly PageRecord[], pageNumbers: ReadonlyMap<number, number>) {
  const outside = numbering<number>();
  const phrases = numbering<number>();
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
    marks: new Uint8Array(total),
    faults: new Uint16Array(total),
  };
  function add(number: number, packed: Uint8Array): void {
    let at = offsets[pageNumbers.get(number)!];
    eachPackedLink(packed, (kind, element, landmark, target, anchor, rel, path, fragment, line, column, marks) => {
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
      links.marks[at] = marks;
      at++;
    });
  }
  return { links, add, outside: outside.numbers, phrases: phrases.numbers };
}

/** A snapshot in the making. */
export interface SnapshotBuilder {
  /** Lays out the packed links of one page, which name addresses and phrases by number. Each page comes once. */
  addLinks: (number: number, packed: Uint8Array) => void;
  /** The numbers of addresses that are no pages, and of phrases, that links have named so far. */
  named: () => { outside: number[]; phrases: number[] };
  finish: (rest: SnapshotRest) => Snapshot;
  /** As `finish`, pausing between its steps. */
  steps: (rest: SnapshotRest) => Generator<undefined, Snapshot>;
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
  const steps = (rest: SnapshotRest) => {
    const texts = (numbers: ReadonlyMap<number, number>, of: ReadonlyMap<number, string>) =>
      Array.from(numbers.keys(), (number) => of.get(number) ?? '');
    const checks = Array.from(outside.keys(), (number) => rest.checks.get(number) ?? null);
    return measure(pages, pageNumbers, rest, {
      links,
      outside: texts(outside, rest.outside),
      checks,
      phrases: texts(phrases, rest.phrases),
    });
  };
  return {
    addLinks: add,
    named: () => ({ outside: [...outside.keys()], phrases: [...phrases.keys()] }),
    steps,
    finish: (rest) => {
      const all = steps(rest);
      for (;;) {
        const step = all.next();
        if (step.done) return step.value;
      }
    },
  };
}
