/** Lays a crawl out as a base: pages first, then their links page by page, so that links need not be held twice. */
import { factOf, keepsText } from '../facts';
import type { ColumnName } from '../facts';
import { rowNumbering, rowTable } from '../grouping';
import { fragmentName } from '../html';
import { CLICK_KIND, eachPackedLink, MISSING_FRAGMENT, phraseFields } from '../links';
import { readW3cDate } from '../sitemap';
import { codeOf, textCoder, textColumn, unknownColumn } from './column';
import type { Column, TextColumn } from './column';
import { columnReader } from './layers';
import { keepLinks, linkRoom } from './linkColumns';
import { observed, observedFacts } from './observed';
import type { Observed, PageRecord } from './observed';
import type { BaseLinks } from './linkColumns';
import type { Base, Check, SiteFiles } from './snapshot';

/** Gathers the values of one fact, in the order in which pages come. */
function gatherer(name: keyof typeof observed) {
  const { type, values } = factOf(name);
  const of = observed[name];
  const gathered: number[] = [];
  if (keepsText(type)) {
    const { code, column } = textCoder();
    return {
      add: (page: PageRecord) => void gathered.push(code(of(page) as string | null)),
      column: (order: Uint32Array) => column(order.map((at) => gathered[at])),
    };
  }
  const places = values && new Map<Observed, number>(values.map((value, i) => [value, i]));
  return {
    add: (page: PageRecord) => {
      const value = of(page);
      gathered.push(value === null ? -1 : places ? places.get(value)! : Number(value));
    },
    column: (order: Uint32Array) => new Int32Array(order).map((at) => gathered[at]),
  };
}

/** What a base holds besides pages and their links. */
export interface BaseRest {
  starts: readonly string[];
  /** The addresses that imported lists know. */
  listed: ReadonlySet<string>;
  /** The addresses that links lead to and that are no pages: external ones and resources, by number. */
  outside: ReadonlyMap<number, string>;
  /** Those of them that are pages of the site which the crawl may not know: links to them are left out. */
  beyond?: ReadonlySet<number>;
  /** How those answered that were checked, by number. */
  checks: ReadonlyMap<number, Check>;
  /** Texts by the numbers that links name them with; 0 is ''. */
  phrases: ReadonlyMap<number, string>;
  /** What sitemaps list, by number of the address. */
  listings: readonly {
    number: number;
    sitemap: string;
    line: number;
    lastmod: string | null;
    alternates?: readonly { language: string; address: string }[];
  }[];
  files: SiteFiles;
}

/** Lays out the links of pages that are known, page by page in any order. */
export interface LinkLayout {
  /** Lays out the packed links of one page, which name addresses and phrases by number. Each page comes once. */
  addLinks: (number: number, packed: Uint8Array) => void;
  /** The numbers of addresses that are no pages, and of phrases, that links have named so far. */
  named: () => { outside: readonly number[]; phrases: readonly number[] };
  finish: (rest: BaseRest) => Base;
}

/** Begins a base: takes in every known inside address, once each and in any order, then lays out links. */
export function baseBuilder() {
  const gatherers = observedFacts.map((name) => gatherer(name));
  const addresses: string[] = [];
  const numbers: number[] = [];
  const linkCounts: number[] = [];
  const fingerprints: number[] = [];
  const ids: (string | null)[] = [];
  const filters: (Uint8Array | null)[] = [];
  return {
    addPage(page: PageRecord): void {
      for (const { add } of gatherers) add(page);
      const { fingerprint, wordFilter } = page.found;
      const view = fingerprint && new DataView(fingerprint.buffer, fingerprint.byteOffset, fingerprint.byteLength);
      addresses.push(page.address);
      numbers.push(page.number);
      linkCounts.push(page.linkCount);
      fingerprints.push(view ? view.getUint32(0) : 0, view ? view.getUint32(4) : 0);
      ids.push(page.found.html ? page.found.ids : null);
      filters.push(wordFilter);
    },
    /** Puts the pages in the order of their addresses. Nothing is added afterwards. */
    layOut(): LinkLayout {
      const order = new Uint32Array(addresses.length)
        .map((_, at) => at)
        .sort((a, b) => (addresses[a] < addresses[b] ? -1 : 1));
      const columns = new Map<ColumnName, Column>(observedFacts.map((name, i) => [name, gatherers[i].column(order)]));
      const pageFingerprints = new Uint32Array(2 * order.length).map(
        (_, at) => fingerprints[2 * order[at >> 1] + (at & 1)],
      );
      // No address comes twice.
      const url = textColumn(Array.from(order, (at) => addresses[at]));
      return linkLayout(
        url,
        columns.set('url', url),
        pageFingerprints,
        Array.from(order, (at) => numbers[at]),
        Array.from(order, (at) => linkCounts[at]),
        Array.from(order, (at) => ids[at]),
        joinFilters(Array.from(order, (at) => filters[at])),
      );
    },
  };
}

function linkLayout(
  url: TextColumn,
  columns: Map<ColumnName, Column>,
  fingerprints: Uint32Array,
  numbers: readonly number[],
  linkCounts: readonly number[],
  ids: (string | null)[],
  wordFilters: Base['wordFilters'],
): LinkLayout {
  const count = numbers.length;
  const pageNumbers = rowTable();
  numbers.forEach((number, page) => pageNumbers.set(number, page));
  const outside = rowNumbering();
  const phrases = rowNumbering();
  phrases.of(0);
  const offsets = new Uint32Array(count + 1);
  linkCounts.forEach((links, page) => (offsets[page + 1] = offsets[page] + links));
  const room = linkRoom(offsets[count]);
  return {
    addLinks(number, packed) {
      const page = pageNumbers.get(number);
      if (page < 0) return;
      let at = offsets[page];
      eachPackedLink(packed, (link) => {
        const inside = pageNumbers.get(link.target);
        link.target = inside < 0 ? count + outside.of(link.target) : inside;
        for (const name of phraseFields) link[name] = phrases.of(link[name]);
        room.put(at++, link);
      });
    },
    named: () => ({ outside: outside.rows, phrases: phrases.rows }),
    finish(rest) {
      const texts = (named: readonly number[], of: ReadonlyMap<number, string>) =>
        named.map((number) => of.get(number) ?? '');
      const pagesOf = (addresses: readonly string[]) =>
        // Pages are numbered in the order of their addresses, so their codes are one more.
        addresses.map((address) => (codeOf(url, address) ?? 0) - 1).filter((page) => page >= 0);
      const phraseTexts = texts(phrases.rows, rest.phrases);
      const all: BaseLinks = { offsets, ...room.columns() };
      const { beyond } = rest;
      const isBeyond = (target: number) => target >= count && beyond!.has(outside.rows[target - count]);
      const links = beyond?.size
        ? keepLinks(all, (link) => all.kind[link] !== CLICK_KIND || !isBeyond(all.target[link]))
        : all;
      markMissingFragments(links, phraseTexts, ids);
      const listings = rest.listings.flatMap(({ number, ...entry }) => {
        const page = pageNumbers.get(number);
        return page < 0 ? [] : [{ page, ...entry }];
      });
      columns.set('sitemap_lastmod', newestLastmods(count, listings));
      return {
        below: null,
        gives: () => true,
        count,
        starts: pagesOf(rest.starts),
        listed: pagesOf([...rest.listed]),
        column: columnReader((name) => columns.get(name) ?? unknownColumn(name, count)),
        fingerprints,
        wordFilters,
        links,
        outside: texts(outside.rows, rest.outside),
        checks: outside.rows.map((number) => rest.checks.get(number) ?? null),
        phrases: phraseTexts,
        listings: listings.map(({ page, sitemap, line }) => ({ page, sitemap, line })),
        alternates: listings
          .flatMap(({ page, alternates = [] }) => alternates.map((one) => ({ page, ...one })))
          .sort((a, b) => a.page - b.page),
        files: rest.files,
      };
    },
  };
}

/** Lays the filters of pages out one after the other; what is not known takes no room. */
function joinFilters(filters: readonly (Uint8Array | null)[]): Base['wordFilters'] {
  const offsets = new Uint32Array(filters.length + 1);
  filters.forEach((filter, page) => (offsets[page + 1] = offsets[page] + (filter?.length ?? 0)));
  const bytes = new Uint8Array(offsets[filters.length]);
  filters.forEach((filter, page) => filter && bytes.set(filter, offsets[page]));
  return { offsets, bytes };
}

/** The newest date that sitemaps give for each page; what is no date counts as older than all. */
function newestLastmods(count: number, listings: readonly { page: number; lastmod: string | null }[]) {
  const newest: (string | null)[] = new Array<null>(count).fill(null);
  const timeOf = (lastmod: string) => readW3cDate(lastmod) ?? -Infinity;
  for (const { page, lastmod } of listings) {
    const known = newest[page];
    if (lastmod !== null && (known === null || timeOf(lastmod) > timeOf(known))) newest[page] = lastmod;
  }
  return textColumn(newest);
}

/**
 * Marks the click links whose fragment names nothing on their target, as far as that is known. An empty fragment and
 * `top` name the top of any page (HTML, "find a potential indicated element"); text directives name no element.
 */
function markMissingFragments(links: BaseLinks, phrases: readonly string[], ids: (string | null)[]): void {
  const sets = new Map<number, Set<string>>();
  const idsOf = (page: number) => {
    let own = sets.get(page);
    if (!own) sets.set(page, (own = new Set(ids[page]!.split('\n'))));
    return own;
  };
  // Fragments that need no element, and none at all, are told apart once for each text.
  const names = phrases.map((text) => (text === '' || /^top$/i.test(text) || text.includes(':~:') ? null : text));
  for (let link = 0; link < links.target.length; link++) {
    const name = names[links.fragment[link]];
    const target = links.target[link];
    if (name === null || links.kind[link] !== CLICK_KIND || (ids[target] ?? null) === null) continue;
    const own = idsOf(target);
    if (!own.has(name) && !own.has(fragmentName(name))) links.marks[link] |= MISSING_FRAGMENT;
  }
}
