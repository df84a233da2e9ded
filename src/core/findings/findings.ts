import { plainWords } from '../anchors';
import type { ColumnName } from '../facts';
import type { Groups } from '../grouping';
import { groupByEdit } from '../linkGroups';
import { placements } from '../links';
import type { Placement } from '../links';
import { eachBit, evaluate, evaluateLinks, numbersOf, parseLinkSelection, parseSelection } from '../selection';
import type { Bits } from '../selection';
import { DAMPING } from '../share';
import { isText, memoOf, sourcesOf } from '../snapshot';
import type { Column, WholeNumbers } from '../snapshot';
import { findings } from './catalogue';
import type { Finding, FindingTexts, Thresholds } from './catalogue';
import { fileFaults, noSitemap } from './files';
import type { FileFault } from './files';
import type { View } from '../view';
import { isError } from '../errors';

/** The place of a link that stands on many pages. */
export interface LinkBlock {
  placement: Placement;
  /** The elements that the link stands in. */
  above: string;
  /** Pages that have it. */
  pages: number;
}

/** How much of a site a finding is about. */
export interface FindingResult {
  id: string;
  over: Finding['over'];
  /** The selection, of pages or of links; '' for files. */
  select: string;
  /** The fact whose equal values are mended by one edit, for findings over pages that have one. */
  oneEdit: ColumnName | null;
  /** Pages that are at fault, or on which links are. */
  pages: number;
  /** Pages, links, or lines of files. */
  occurrences: number;
  /** Edits that mend them all. */
  edits: number;
  /** Share of the pages, or that the links carry, as part of the whole: 0 to 1. */
  share: number;
  /** The block of a template that most of its pages have it from; null when there is none. */
  block: LinkBlock | null;
  /**
   * What it costs the site: weight × (part of the share + part of the pages, at whichever end of links there are more)
   * ÷ 2.
   */
  cost: number;
  files: FileFault[];
}

/** A finding with the texts that a person reads. */
export type Found = FindingResult & FindingTexts;

const byId = new Map(findings.map((finding) => [finding.id, finding]));

const textsOf = ({ name, question, rule, why, remedy, worthALook, related }: Finding): FindingTexts => ({
  ...{ name, question, rule, why, remedy, worthALook, related },
});

/** Adds the texts of the catalogue; results of findings that are no longer in it are left out. */
export const describeFindings = (results: readonly FindingResult[]): Found[] =>
  results.flatMap((result) => {
    const finding = byId.get(result.id);
    return finding ? [{ ...result, ...textsOf(finding) }] : [];
  });

export interface FindingOptions {
  thresholds: Thresholds;
  /** Product token whose robots rules are read. */
  token: string;
  /** Whether the crawl looked for sitemaps wherever they may be. */
  sitemapsFromRobots: boolean;
  usualSitemaps: boolean;
}

/** What a finding selects. @throws Error when its selection cannot be read, which a test rules out */
export function selected(snapshot: View, over: 'pages' | 'links', text: string): Bits {
  const parsed = over === 'pages' ? parseSelection(text) : parseLinkSelection(text);
  if (!parsed.ok) throw new Error(`${text}: ${parsed.fault.message}`);
  return over === 'pages' ? evaluate(snapshot, parsed.selection) : evaluateLinks(snapshot, parsed.selection);
}

const hasSitemap = ({ files, listings }: View) => files.sitemaps.length > 0 || listings.length > 0;
const isUnread = ({ fault }: View['files']['sitemaps'][number]) => fault?.code === 'sitemap_not_read';
/** Whether there is a sitemap that is meant to list every page, and everything that sitemaps list is known. */
const hasWholeSitemap = (snapshot: View) => {
  const { sitemaps } = snapshot.files;
  const isWhole = sitemaps.length === 0 || sitemaps.some(({ isFeed }) => !isFeed);
  return hasSitemap(snapshot) && isWhole && !sitemaps.some(isUnread);
};

/** Whether a finding can be a fault of a site at all. */
export const applies = (snapshot: View, { needsSitemap }: Finding) => !needsSitemap || hasWholeSitemap(snapshot);

/** The faults of files; that there is no sitemap is one, where one was looked for wherever it may be. */
export function faultsOfFiles(
  snapshot: View,
  { token, sitemapsFromRobots, usualSitemaps }: Omit<FindingOptions, 'thresholds'>,
): FileFault[] {
  const faults = fileFaults(snapshot, token);
  const isMissing = sitemapsFromRobots && usualSitemaps && snapshot.count > 0 && !hasSitemap(snapshot);
  return isMissing ? [...faults, noSitemap(snapshot)] : faults;
}

/** How much of a site a finding touches. */
type Measured = Pick<FindingResult, 'pages' | 'occurrences' | 'edits' | 'share' | 'block' | 'cost' | 'files'>;

/** The link share of all pages, which every finding is measured against. */
const wholeShare = memoOf(['share'], ({ column }) =>
  column('share').reduce((sum, own) => (own > 0 ? sum + own : sum), 0),
);

/** A block is told of when it has the fault on at least so many pages, and on most that have it at all. */
const BLOCK_PAGES = 5;
const BLOCK_PART = 0.5;

function largestBlock(snapshot: View, chosen: Uint32Array, { of, first }: Groups, pages: number): LinkBlock | null {
  const counts = new Uint32Array(first.length);
  let largest = 0;
  for (const group of of) if (++counts[group] > counts[largest]) largest = group;
  if (counts[largest] < BLOCK_PAGES) return null;
  const { links, phrases } = snapshot;
  const source = sourcesOf(snapshot);
  const own = new Set<number>();
  chosen.forEach((link, i) => of[i] === largest && own.add(source[link]));
  if (own.size < BLOCK_PAGES || own.size < BLOCK_PART * pages) return null;
  const link = first[largest];
  return { placement: placements[links.placement[link]], above: phrases[links.above[link]], pages: own.size };
}

type EditBy = NonNullable<Extract<Finding, { over: 'links' }>['editBy']>;

/** The different numbers that a column has at some links, all below `size`. */
function numbersAt(chosen: Uint32Array, column: WholeNumbers, size: number): number[] {
  const isMet = new Uint8Array(size);
  const met: number[] = [];
  for (const link of chosen) {
    const number = column[link];
    if (isMet[number] === 1) continue;
    isMet[number] = 1;
    met.push(number);
  }
  return met;
}

/** How many edits fix links, where one edit is more than the same link in one block. */
function editsBy({ links, phrases, count, outside }: View, chosen: Uint32Array, by: EditBy): number {
  if (by === 'target') return numbersAt(chosen, links.target, count + outside.length).length;
  if (by === 'place') return numbersAt(chosen, links.above, phrases.length).length;
  const anchors = numbersAt(chosen, links.anchor, phrases.length);
  return new Set(anchors.map((anchor) => plainWords(phrases[anchor]))).size;
}

function measureLinks(snapshot: View, chosen: Uint32Array, editBy: EditBy | undefined, touch: (page: number) => void) {
  const { column, count, outside } = snapshot;
  const share = column('share');
  const linksOut = column('links_out');
  const { target } = snapshot.links;
  const source = sourcesOf(snapshot);
  const targets = numbersAt(chosen, target, count + outside.length).filter((page) => page < count);
  let pages = 0;
  let touched = 0;
  let last = -1;
  for (const link of chosen) {
    const page = source[link];
    if (share[page] > 0 && linksOut[page] > 0) touched += (DAMPING * share[page]) / linksOut[page];
    // Links stand page by page.
    if (page === last) continue;
    last = page;
    pages++;
    touch(page);
  }
  const groups = groupByEdit(snapshot, chosen);
  const edits = editBy ? editsBy(snapshot, chosen, editBy) : groups.count;
  const block = largestBlock(snapshot, chosen, groups, pages);
  // A thousand broken links on one page are a thousand pages that are missing.
  const concerned = Math.max(pages, targets.length);
  return { pages, occurrences: chosen.length, edits, block, touched, concerned };
}

function measurePages({ column }: View, bits: Bits, oneEdit: ColumnName | undefined, touch: (page: number) => void) {
  const share = column('share');
  const edited: Column | undefined = oneEdit && column(oneEdit);
  const codes = edited && (isText(edited) ? edited.codes : edited);
  const edits = new Set<number>();
  let pages = 0;
  let touched = 0;
  eachBit(bits, (page) => {
    pages++;
    touch(page);
    if (share[page] > 0) touched += share[page];
    edits.add(codes ? codes[page] : page);
  });
  return { pages, occurrences: pages, edits: edits.size, block: null, touched, concerned: pages };
}

/**
 * Measures a finding.
 * @param select the selection of the finding, which may be narrower than its own
 * @param faults of all files
 * @param touch told of each page that it is about, which may be more than once
 */
export function measureFinding(
  snapshot: View,
  finding: Finding,
  select: string,
  faults: readonly FileFault[],
  touch: (page: number) => void = () => {},
): Measured {
  const { count } = snapshot;
  const costOf = (share: number, pages: number) => (finding.weight * (share + (count ? pages / count : 0))) / 2;
  if (finding.over === 'files') {
    const files = faults.filter(({ fault }) => fault === finding.id);
    const pages = finding.wholeSite && files.length ? count : 0;
    const share = pages ? 1 : 0;
    const [occurrences, edits] = [files.length, files.length];
    return { pages, occurrences, edits, share, block: null, cost: costOf(share, pages), files };
  }
  const bits = selected(snapshot, finding.over, select);
  const { touched, concerned, ...counted } =
    finding.over === 'links'
      ? measureLinks(snapshot, numbersOf(bits), finding.editBy, touch)
      : measurePages(snapshot, bits, finding.oneEdit, touch);
  const whole = wholeShare(snapshot);
  const share = whole ? touched / whole : 0;
  return { ...counted, share, cost: costOf(share, concerned), files: [] };
}

const isCertain = ({ id }: FindingResult) => Number(!byId.get(id)?.worthALook);

/** Puts those that cost most first, and what is only worth a look after them. */
export const byCost = (a: FindingResult, b: FindingResult): number =>
  isCertain(b) - isCertain(a) || b.cost - a.cost || b.occurrences - a.occurrences || (a.id < b.id ? -1 : 1);

/**
 * All findings that hold for a snapshot, those that cost most first.
 * @param touch told of each page that a finding is about, which may be more than once
 */
export function findingsOf(
  snapshot: View,
  options: FindingOptions,
  touch: (id: string, page: number) => void = () => {},
): FindingResult[] {
  const faults = faultsOfFiles(snapshot, options);
  return findings
    .filter((finding) => applies(snapshot, finding))
    .map((finding): FindingResult => {
      const { id, over } = finding;
      const select = finding.over === 'files' ? '' : finding.select(options.thresholds);
      const oneEdit = (finding.over === 'pages' && finding.oneEdit) || null;
      const measured = measureFinding(snapshot, finding, select, faults, (page) => touch(id, page));
      return { id, over, select, oneEdit, ...measured };
    })
    .filter(({ occurrences }) => occurrences > 0)
    .sort(byCost);
}

/** A finding that a site ignores, everywhere or within a selection. */
export interface IgnoredFinding {
  finding: string;
  /** Selection of pages or links, whichever the finding is over; '' for everywhere. */
  within: string;
}

/**
 * Why a view cannot answer within which selection a finding is ignored, such as an import that was removed since, or an
 * earlier crawl that there is none of; null when it can.
 */
export function faultOfIgnored(snapshot: View, { finding, within }: IgnoredFinding): string | null {
  const { over } = byId.get(finding) ?? { over: 'files' };
  if (over === 'files' || within.trim() === '') return null;
  const parsed = over === 'pages' ? parseSelection(within) : parseLinkSelection(within);
  if (!parsed.ok) return parsed.fault.message;
  try {
    if (over === 'pages') evaluate(snapshot, parsed.selection);
    else evaluateLinks(snapshot, parsed.selection);
    return null;
  } catch (error) {
    if (isError(error, 'selection')) return error.message;
    throw error;
  }
}

/**
 * Leaves out of results what a site ignores; what is ignored in part is measured again. A part that the crawl cannot
 * answer is not ignored: {@link faultOfIgnored} says why.
 * @param snapshot asked for only when something is ignored in part
 */
export async function withoutIgnored<R extends FindingResult>(
  results: readonly R[],
  ignored: readonly IgnoredFinding[],
  snapshot: () => Promise<View>,
): Promise<R[]> {
  const left: R[] = [];
  for (const result of results) {
    const finding = byId.get(result.id);
    const own = ignored.filter((one) => one.finding === result.id);
    if (!finding || own.some(({ within }) => within.trim() === '')) continue;
    const view = own.length > 0 ? await snapshot() : null;
    const parts = view ? own.filter((one) => faultOfIgnored(view, one) === null) : [];
    if (view && parts.length > 0) {
      const select = parts.reduce((rest, { within }) => `(${rest}) and not (${within})`, result.select);
      const measured = measureFinding(view, finding, select, result.files);
      if (measured.occurrences > 0) left.push({ ...result, ...measured, select });
    } else left.push(result);
  }
  return left.sort(byCost);
}
