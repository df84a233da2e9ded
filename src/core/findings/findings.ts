import type { ColumnName } from '../facts';
import { groupByEdit } from '../linkGroups';
import { eachBit, evaluate, evaluateLinks, numbersOf, parseLinkSelection, parseSelection } from '../selection';
import type { Bits } from '../selection';
import { DAMPING } from '../share';
import { isText, sourcesOf } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { findings } from './catalogue';
import type { Finding, FindingTexts, Thresholds } from './catalogue';
import { fileFaults, noSitemap } from './files';
import type { FileFault } from './files';

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
  /** What it costs the site: weight × (part of the share + part of the pages) ÷ 2. */
  cost: number;
  files: FileFault[];
}

/** A finding with the texts that a person reads. */
export type Found = FindingResult & FindingTexts;

const byId = new Map(findings.map((finding) => [finding.id, finding]));

const textsOf = ({ name, question, rule, why, remedy, worthALook }: Finding): FindingTexts => ({
  ...{ name, question, rule, why, remedy, worthALook },
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
function selected(snapshot: Snapshot, over: 'pages' | 'links', text: string): Bits {
  const parsed = over === 'pages' ? parseSelection(text) : parseLinkSelection(text);
  if (!parsed.ok) throw new Error(`${text}: ${parsed.fault.message}`);
  return over === 'pages' ? evaluate(snapshot, parsed.selection) : evaluateLinks(snapshot, parsed.selection);
}

const hasSitemap = ({ files, listings }: Snapshot) => files.sitemaps.length > 0 || listings.length > 0;

/** Whether a finding can be a fault of a site at all. */
export const applies = (snapshot: Snapshot, { needsSitemap }: Finding) => !needsSitemap || hasSitemap(snapshot);

/** The faults of files; that there is no sitemap is one, where one was looked for wherever it may be. */
export function faultsOfFiles(
  snapshot: Snapshot,
  { token, sitemapsFromRobots, usualSitemaps }: Omit<FindingOptions, 'thresholds'>,
): FileFault[] {
  const faults = fileFaults(snapshot, token);
  const isMissing = sitemapsFromRobots && usualSitemaps && snapshot.count > 0 && !hasSitemap(snapshot);
  return isMissing ? [...faults, noSitemap(snapshot)] : faults;
}

/**
 * All findings that hold for a snapshot, those that cost most first, what is only worth a look after them.
 * @param touch told of each page that a finding is about, which may be more than once
 */
export function findingsOf(
  snapshot: Snapshot,
  options: FindingOptions,
  touch: (id: string, page: number) => void = () => {},
): FindingResult[] {
  const { thresholds } = options;
  const { count, columns } = snapshot;
  const share = columns.share;
  let whole = 0;
  for (const own of share) if (own > 0) whole += own;
  const linksOut = columns.links_out;
  const broken = faultsOfFiles(snapshot, options);

  const measured = (finding: Finding): Pick<FindingResult, 'pages' | 'occurrences' | 'edits' | 'share' | 'files'> => {
    if (finding.over === 'files') {
      const files = broken.filter(({ fault }) => fault === finding.id);
      const pages = finding.wholeSite && files.length ? count : 0;
      return { pages, occurrences: files.length, edits: files.length, share: pages ? 1 : 0, files };
    }
    const bits = selected(snapshot, finding.over, finding.select(thresholds));
    let touched = 0;
    if (finding.over === 'links') {
      const source = sourcesOf(snapshot);
      const chosen = numbersOf(bits);
      const pages = new Set<number>();
      for (const link of chosen) {
        pages.add(source[link]);
        touch(finding.id, source[link]);
        if (share[source[link]] > 0 && linksOut[source[link]] > 0)
          touched += (DAMPING * share[source[link]]) / linksOut[source[link]];
      }
      return {
        pages: pages.size,
        occurrences: chosen.length,
        edits: groupByEdit(snapshot, chosen).count,
        share: whole ? touched / whole : 0,
        files: [],
      };
    }
    const column = finding.oneEdit && columns[finding.oneEdit];
    const codes = column && (isText(column) ? column.codes : column);
    const edits = new Set<number>();
    let pages = 0;
    eachBit(bits, (page) => {
      pages++;
      touch(finding.id, page);
      if (share[page] > 0) touched += share[page];
      edits.add(codes ? codes[page] : page);
    });
    return { pages, occurrences: pages, edits: edits.size, share: whole ? touched / whole : 0, files: [] };
  };

  const all: FindingResult[] = [];
  for (const finding of findings) {
    const { id, over, weight } = finding;
    if (!applies(snapshot, finding)) continue;
    const found = measured(finding);
    if (found.occurrences === 0) continue;
    const select = finding.over === 'files' ? '' : finding.select(thresholds);
    const cost = (weight * (found.share + (count ? found.pages / count : 0))) / 2;
    const oneEdit = (finding.over === 'pages' && finding.oneEdit) || null;
    all.push({ id, over, select, oneEdit, ...found, cost });
  }
  const isCertain = ({ id }: FindingResult) => Number(!byId.get(id)!.worthALook);
  return all.sort(
    (a, b) => isCertain(b) - isCertain(a) || b.cost - a.cost || b.occurrences - a.occurrences || (a.id < b.id ? -1 : 1),
  );
}
