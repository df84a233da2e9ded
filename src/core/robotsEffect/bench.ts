/**
 * The robots bench: judges the known addresses of a host by the file that was fetched and by a draft, and says what the
 * draft changes. Made for a worker that answers at every keystroke.
 */
import { INDEXABLE, sources } from '../facts';
import { composeChoices } from '../robots';
import type { RuleChoice } from '../robots';
import { addressAt } from '../snapshot';
import type { Snapshot, TextColumn } from '../snapshot';
import { compareJudged, decidingLines, pagesOfOrigin } from './judge';

/** What a draft changes, as far as judging tells; addresses are cut to the first of them. */
export interface JudgedDraft {
  known: number;
  closed: { count: number; addresses: string[] };
  opened: { count: number; addresses: string[] };
  still: number;
  /** Of those that become closed: how many may be indexed, and how many sitemaps list. */
  indexableClosed: number;
  listedClosed: number;
  /** Sections that change, most first. */
  sections: { section: string; closed: number; opened: number }[];
  /** How many addresses each rule decides, by its line. */
  decidedBefore: [line: number, addresses: number][];
  decidedAfter: [line: number, addresses: number][];
}
const IN_SITEMAP = 1 << sources.indexOf('sitemap');
/** Addresses and sections that are told. */
const MOST = 200;
const MOST_SECTIONS = 12;

/** How many addresses each line decides. */
function decided(lines: Int32Array): [number, number][] {
  let last = 0;
  for (let i = 0; i < lines.length; i++) last = Math.max(last, Math.abs(lines[i]));
  const counts = new Uint32Array(last + 1);
  for (let i = 0; i < lines.length; i++) counts[Math.abs(lines[i])]++;
  return [...counts.entries()].filter(([line, count]) => line > 0 && count > 0);
}

/** The sections of which pages are closed and opened, most first. */
function changedSections({ values, codes }: TextColumn, closed: readonly number[], opened: readonly number[]) {
  const counts = { closed: new Uint32Array(values.length), opened: new Uint32Array(values.length) };
  for (const page of closed) counts.closed[codes[page]]++;
  for (const page of opened) counts.opened[codes[page]]++;
  return values
    .map((section, code) => ({ section, closed: counts.closed[code], opened: counts.opened[code] }))
    .filter(({ closed, opened }) => closed + opened > 0)
    .sort((a, b) => b.closed + b.opened - a.closed - a.opened)
    .slice(0, MOST_SECTIONS);
}

/**
 * Makes the bench of one host of a crawl.
 * @param before the robots.txt that was fetched; null where there is none
 */
export function robotsBench(snapshot: Snapshot, origin: string, before: string | null) {
  const pages = pagesOfOrigin(snapshot, origin);
  const addresses = Array.from(pages, (page) => addressAt(snapshot, page));
  const verdict = snapshot.column('verdict');
  const seen = snapshot.column('seen_in');
  const section = snapshot.column('section');
  interface Asked {
    text: string | null;
    token: string;
    lines: Int32Array;
    decided: [line: number, addresses: number][];
  }
  let old: Asked | null = null;
  let last: Asked | null = null;
  const ask = (text: string | null, token: string, known: Asked | null): Asked => {
    if (known?.text === text && known.token === token) return known;
    const lines = decidingLines(addresses, text, token);
    return { text, token, lines, decided: decided(lines) };
  };
  return {
    judge(text: string, token: string): JudgedDraft {
      old = ask(before, token, old);
      last = ask(text, token, last);
      const { closed, opened, still } = compareJudged(old.lines, last.lines);
      const pagesAt = (positions: readonly number[]) => positions.map((at) => pages[at]);
      const closedPages = pagesAt(closed);
      const told = (positions: readonly number[]) => ({
        count: positions.length,
        addresses: positions.slice(0, MOST).map((at) => addresses[at]),
      });
      return {
        known: pages.length,
        closed: told(closed),
        opened: told(opened),
        still,
        indexableClosed: closedPages.filter((page) => verdict[page] === INDEXABLE).length,
        listedClosed: closedPages.filter((page) => seen[page] & IN_SITEMAP).length,
        sections: changedSections(section, closedPages, pagesAt(opened)),
        decidedBefore: old.decided,
        decidedAfter: last.decided,
      };
    },
    /** The addresses that a rule of the draft decides, the first of them. */
    decidedBy(text: string, token: string, line: number): { count: number; addresses: string[] } {
      last = ask(text, token, last);
      const found: string[] = [];
      let count = 0;
      last.lines.forEach((at, i) => {
        if (Math.abs(at) === line && ++count <= MOST) found.push(addresses[i]);
      });
      return { count, addresses: found };
    },
    /** Rules that close some addresses and leave all others of the host as they are. */
    compose(picked: readonly string[]): RuleChoice[] {
      const chosen = new Set(picked);
      return composeChoices(
        picked.filter((address) => address.startsWith(`${origin}/`)),
        addresses.filter((address) => !chosen.has(address)),
      );
    },
  };
}
