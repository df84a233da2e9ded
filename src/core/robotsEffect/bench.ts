/**
 * The robots bench: judges the known addresses of a host by the file that was fetched and by a draft, and says what the
 * draft changes. Made for a worker that answers at every keystroke.
 */
import { sources, verdicts } from '../facts';
import { composeChoices } from '../robots';
import type { RuleChoice } from '../robots';
import { addressAt, textAt } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { beforeEdit, compareJudged, decidingLines, judge, pagesOfOrigin } from './judge';
import type { Judged } from './judge';

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

const INDEXABLE = verdicts.indexOf('indexable');
const IN_SITEMAP = 1 << sources.indexOf('sitemap');
/** Addresses and sections that are told. */
const MOST = 200;
const MOST_SECTIONS = 12;

/** How many addresses each line decides. */
function decided(lines: Int32Array): [number, number][] {
  const counts = new Uint32Array(1 + lines.reduce((most, line) => Math.max(most, Math.abs(line)), 0));
  for (const line of lines) counts[Math.abs(line)]++;
  return [...counts.entries()].filter(([line, count]) => line > 0 && count > 0);
}

/**
 * Makes the bench of one host of a crawl.
 * @param before the robots.txt that was fetched; null where there is none
 */
export function robotsBench(snapshot: Snapshot, origin: string, before: string | null) {
  const pages = pagesOfOrigin(snapshot, origin);
  const addresses = Array.from(pages, (page) => addressAt(snapshot, page));
  const { verdict, seen_in: seen } = snapshot.columns;
  interface Asked {
    text: string | null;
    token: string;
    judged: Judged;
    lines: Int32Array;
  }
  let old: Asked | null = null;
  let last: Asked | null = null;
  const ask = (text: string | null, token: string, known: Asked | null): Asked => {
    if (known?.text === text && known.token === token) return known;
    const judged = judge(addresses, text, token, known?.judged);
    return { text, token, judged, lines: decidingLines(judged) };
  };
  const oldLines = (token: string) => (old = ask(before, token, old)).lines;
  const linesOf = (text: string, token: string) => (last = ask(text, token, last ?? old)).lines;
  return {
    judge(text: string, token: string): JudgedDraft {
      const [was, is] = [oldLines(token), linesOf(text, token)];
      const { closed, opened, still } = compareJudged(was, is);
      const sections = new Map<string, { section: string; closed: number; opened: number }>();
      const count = (positions: readonly number[], kind: 'closed' | 'opened') => {
        for (const at of positions) {
          const section = textAt(snapshot, 'section', pages[at]) ?? '';
          const entry = sections.get(section) ?? { section, closed: 0, opened: 0 };
          sections.set(section, entry);
          entry[kind]++;
        }
      };
      count(closed, 'closed');
      count(opened, 'opened');
      const told = (positions: readonly number[]) => ({
        count: positions.length,
        addresses: positions.slice(0, MOST).map((at) => addresses[at]),
      });
      return {
        known: pages.length,
        closed: told(closed),
        opened: told(opened),
        still,
        indexableClosed: closed.filter((at) => verdict[pages[at]] === INDEXABLE).length,
        listedClosed: closed.filter((at) => seen[pages[at]] & IN_SITEMAP).length,
        sections: [...sections.values()]
          .sort((a, b) => b.closed + b.opened - a.closed - a.opened)
          .slice(0, MOST_SECTIONS),
        decidedBefore: decided(was),
        decidedAfter: decided(is),
      };
    },
    /** The addresses that a rule of the draft decides, the first of them. */
    decidedBy(text: string, token: string, line: number): { count: number; addresses: string[] } {
      last = ask(text, token, last ?? old);
      // Whoever looks at a line of the draft often goes on to write there.
      last.judged = beforeEdit(addresses, last.judged, line);
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
