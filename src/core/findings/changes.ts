/** What became of each finding: new, solved, still there, or gone with its page, which is something else. */
import { commonNumbersOf } from '../compare';
import type { Comparison } from '../compare';
import { eachBit, hasBit } from '../selection';
import type { Bits } from '../selection';
import { sourcesOf } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { findings } from './catalogue';
import type { Finding } from './catalogue';
import { applies, faultsOfFiles, selected } from './findings';
import type { FindingOptions } from './findings';

export interface FindingChange {
  finding: string;
  /** Occurrences: pages, links by their source, target and words, or lines of files. */
  new: number;
  solved: number;
  remaining: number;
  /** Of those that were there: no longer, because the page no longer answers. */
  gone: number;
}
type Counts = Omit<FindingChange, 'finding'>;

const answers = ({ columns: { status } }: Snapshot, page: number) =>
  page >= 0 && status[page] >= 200 && status[page] < 300;

function changesOfFiles(
  { old, fresh, map }: Comparison,
  { id }: Finding,
  [then, now]: [FindingOptions, FindingOptions],
): Counts {
  const occurrences = (snapshot: Snapshot, options: FindingOptions) =>
    new Set(
      faultsOfFiles(snapshot, options)
        .filter(({ fault }) => fault === id)
        .map(({ file, evidence }) => `${map(file)} ${JSON.stringify(evidence)}`),
    );
  const [before, after] = [occurrences(old, then), occurrences(fresh, now)];
  const remaining = [...before].filter((one) => after.has(one)).length;
  return { new: after.size - remaining, solved: before.size - remaining, remaining, gone: 0 };
}

function changesOfPages({ fresh, before, after }: Comparison, then: Bits | null, now: Bits | null): Counts {
  const counts = { new: 0, solved: 0, remaining: 0, gone: 0 };
  if (then)
    eachBit(then, (was) => {
      const is = after[was];
      if (is >= 0 && now && hasBit(now, is)) counts.remaining++;
      else if (answers(fresh, is)) counts.solved++;
      else counts.gone++;
    });
  if (now)
    eachBit(now, (is) => {
      if (before[is] < 0 || !then || !hasBit(then, before[is])) counts.new++;
    });
  return counts;
}

/** Some links, page by page, each as one number that is the same in both crawls for the same target and words. */
function keysByPage(bits: Bits | null, { links: { offsets } }: Snapshot, keyOf: (link: number) => number) {
  return (page: number): Float64Array => {
    const keys: number[] = [];
    if (bits && page >= 0)
      for (let link = offsets[page]; link < offsets[page + 1]; link++) {
        // Whole words of a set without a bit are passed over at once.
        if ((link & 31) === 0 && bits.words[link >>> 5] === 0) link += 31;
        else if (hasBit(bits, link)) keys.push(keyOf(link));
      }
    const sorted = Float64Array.from(keys).sort();
    return sorted.filter((key, i) => i === 0 || key !== sorted[i - 1]);
  };
}

/** How many numbers two ascending lists share. */
function shared(a: Float64Array, b: Float64Array): number {
  let both = 0;
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    if (a[i] === b[j]) {
      both++;
      i++;
      j++;
    } else if (a[i] < b[j]) i++;
    else j++;
  }
  return both;
}

function changesOfLinks(comparison: Comparison, then: Bits | null, now: Bits | null): Counts {
  const { old, fresh, before, after } = comparison;
  const { targets, phrases } = commonNumbersOf(comparison);
  const words = fresh.phrases.length + old.phrases.length;
  const keysThen = keysByPage(
    then,
    old,
    (link) => targets[old.links.target[link]] * words + phrases[old.links.anchor[link]],
  );
  const keysNow = keysByPage(now, fresh, (link) => fresh.links.target[link] * words + fresh.links.anchor[link]);
  const counts = { new: 0, solved: 0, remaining: 0, gone: 0 };
  const pagesWith = (bits: Bits | null, snapshot: Snapshot) => {
    const pages: number[] = [];
    const sources = sourcesOf(snapshot);
    if (bits)
      eachBit(bits, (link) => {
        if (pages[pages.length - 1] !== sources[link]) pages.push(sources[link]);
      });
    return pages;
  };
  for (const was of pagesWith(then, old)) {
    const keys = keysThen(was);
    const remaining = shared(keys, keysNow(after[was]));
    counts.remaining += remaining;
    counts[answers(fresh, after[was]) ? 'solved' : 'gone'] += keys.length - remaining;
  }
  for (const is of pagesWith(now, fresh)) {
    const keys = keysNow(is);
    counts.new += keys.length - shared(keysThen(before[is]), keys);
  }
  return counts;
}

/**
 * Compares the findings of two crawls; those that neither has are left out.
 * @param options of each crawl
 */
export function compareFindings(
  comparison: Comparison,
  [then, now]: [FindingOptions, FindingOptions],
): FindingChange[] {
  const bitsOf = (snapshot: Snapshot, finding: Finding, options: FindingOptions) =>
    finding.over !== 'files' && applies(snapshot, finding)
      ? selected(snapshot, finding.over, finding.select(options.thresholds))
      : null;
  return findings.flatMap((finding) => {
    const [before, after] = [bitsOf(comparison.old, finding, then), bitsOf(comparison.fresh, finding, now)];
    const counts =
      finding.over === 'files'
        ? changesOfFiles(comparison, finding, [then, now])
        : finding.over === 'pages'
          ? changesOfPages(comparison, before, after)
          : changesOfLinks(comparison, before, after);
    const { new: come, solved, remaining, gone } = counts;
    return come + solved + remaining + gone > 0 ? [{ finding: finding.id, ...counts }] : [];
  });
}
