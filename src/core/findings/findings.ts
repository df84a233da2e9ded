import { groupByEdit } from '../edits';
import {
  eachBit,
  evaluate,
  evaluateLinks,
  numbersOf,
  parseLinkSelection,
  parseSelection,
  sourcesOfLinks,
} from '../selection';
import type { Bits } from '../selection';
import { isText } from '../snapshot';
import type { FactName, Snapshot } from '../snapshot';
import { DAMPING } from '../share';
import { findings } from './catalogue';
import type { Finding, Question, Thresholds } from './catalogue';
import { fileFaults } from './files';
import type { FileFault } from './files';

/** How much of a site a finding is about. */
export interface Found {
  id: string;
  name: string;
  question: Question;
  over: Finding['over'];
  /** The selection, of pages or of links; '' for files. */
  select: string;
  why: string;
  remedy: string;
  /** The fact whose equal values are mended by one edit, for findings over pages that have one. */
  oneEdit: FactName | null;
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

export interface FindingOptions {
  thresholds: Thresholds;
  /** Product token whose robots rules are read. */
  token: string;
}

/** What a finding selects. @throws Error when its selection cannot be read, which a test rules out */
function selected(snapshot: Snapshot, over: 'pages' | 'links', text: string): Bits {
  const parsed = over === 'pages' ? parseSelection(text) : parseLinkSelection(text);
  if (!parsed.ok) throw new Error(`${text}: ${parsed.fault.message}`);
  return over === 'pages' ? evaluate(snapshot, parsed.selection) : evaluateLinks(snapshot, parsed.selection);
}

/** All findings that hold for a snapshot, those that cost most first. */
export function findingsOf(snapshot: Snapshot, options: FindingOptions): Found[] {
  const steps = findingSteps(snapshot, options, () => {});
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/**
 * As {@link findingsOf}, with a pause after each finding for whoever does something else meanwhile.
 * @param touch told of each page that a finding is about, which may be more than once
 */
export function* findingSteps(
  snapshot: Snapshot,
  { thresholds, token }: FindingOptions,
  touch: (id: string, page: number) => void,
): Generator<undefined, Found[]> {
  const { count, columns } = snapshot;
  const share = columns.share as Float64Array;
  let whole = 0;
  for (const own of share) if (own > 0) whole += own;
  const linksOut = columns.links_out as Int32Array;
  let sources: Uint32Array | undefined;
  const broken = fileFaults(snapshot, token);

  const measured = (finding: Finding): Pick<Found, 'pages' | 'occurrences' | 'edits' | 'share' | 'files'> => {
    if (finding.over === 'files') {
      const files = broken.filter(({ fault }) => fault === finding.id);
      // A closed host is all of its pages.
      const pages = finding.weight === 1 && files.length ? count : 0;
      return { pages, occurrences: files.length, edits: files.length, share: pages ? 1 : 0, files };
    }
    const bits = selected(snapshot, finding.over, finding.select(thresholds));
    let touched = 0;
    if (finding.over === 'links') {
      const source = (sources ??= sourcesOfLinks(snapshot));
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

  const all: Found[] = [];
  for (const finding of findings) {
    const { id, name, question, over, why, remedy, weight } = finding;
    const found = measured(finding);
    yield;
    if (found.occurrences === 0) continue;
    const select = finding.over === 'files' ? '' : finding.select(thresholds);
    const cost = (weight * (found.share + (count ? found.pages / count : 0))) / 2;
    const oneEdit = (finding.over === 'pages' && finding.oneEdit) || null;
    all.push({ id, name, question, over, select, why, remedy, oneEdit, ...found, cost });
  }
  return all.sort((a, b) => b.cost - a.cost || b.occurrences - a.occurrences || (a.id < b.id ? -1 : 1));
}
