/** What became of each finding: new, solved, still there, or gone with its page, which is something else. */
import { commonNumbersOf } from '../compare';
import type { Comparison } from '../compare';
import { eachBit, hasBit } from '../selection';
import type { Bits } from '../selection';
import { findings } from './catalogue';
import type { Finding, Thresholds } from './catalogue';
import { applies, faultsOfFiles, selected } from './findings';
import type { FindingOptions } from './findings';
import type { View } from '../view';

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

/** For each count of a finding over pages the selection across crawls that holds its pages; null for other findings. */
export function changeSelects(id: string, thresholds: Thresholds): Record<keyof Counts, string> | null {
  const finding = findings.find((one) => one.id === id);
  if (finding?.over !== 'pages') return null;
  const select = `(${finding.select(thresholds)})`;
  const isAnswered = '(status >= 200 and status < 300)';
  return {
    new: `${select} and not was ${select}`,
    solved: `was ${select} and not ${select} and ${isAnswered}`,
    remaining: `${select} and was ${select}`,
    gone: `was ${select} and not ${select} and not ${isAnswered}`,
  };
}

function answers({ column }: View, page: number) {
  const status = column('status');
  return page >= 0 && status[page] >= 200 && status[page] < 300;
}

function changesOfFiles(
  { old, fresh, map }: Comparison<View>,
  { id }: Finding,
  [then, now]: [FindingOptions, FindingOptions],
): Counts {
  const occurrences = (snapshot: View, options: FindingOptions) =>
    new Set(
      faultsOfFiles(snapshot, options)
        .filter(({ fault }) => fault === id)
        .map(({ file, evidence }) => `${map(file)} ${JSON.stringify(evidence)}`),
    );
  const [before, after] = [occurrences(old, then), occurrences(fresh, now)];
  const remaining = [...before].filter((one) => after.has(one)).length;
  return { new: after.size - remaining, solved: before.size - remaining, remaining, gone: 0 };
}

function changesOfPages({ fresh, before, after }: Comparison<View>, then: Bits | null, now: Bits | null): Counts {
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

/**
 * Some links of a page, each as one number that is the same in both crawls for the same target and words, in the order
 * in which they stand. What it gives for a page holds until it is asked for the next.
 */
function keysByPage(bits: Bits | null, { links: { offsets } }: View, keyOf: (link: number) => number) {
  let room = new Float64Array(1024);
  return (page: number): Float64Array => {
    if (!bits || page < 0) return room.subarray(0, 0);
    const [from, to] = [offsets[page], offsets[page + 1]];
    if (room.length < to - from) room = new Float64Array(2 * (to - from));
    let n = 0;
    for (let link = from; link < to; link++) {
      // Whole words of a set without a bit are passed over at once.
      if ((link & 31) === 0 && bits.words[link >>> 5] === 0) link += 31;
      else if (hasBit(bits, link)) room[n++] = keyOf(link);
    }
    return room.subarray(0, n);
  };
}

/** Sorts numbers in place, each once. */
function distinct(keys: Float64Array): Float64Array {
  keys.sort();
  let n = Math.min(1, keys.length);
  for (let i = 1; i < keys.length; i++) if (keys[i] !== keys[n - 1]) keys[n++] = keys[i];
  return keys.subarray(0, n);
}

function areEqual(a: Float64Array, b: Float64Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

/** How many numbers two ascending lists share. */
function countCommon(a: Float64Array, b: Float64Array): number {
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

function changesOfLinks(comparison: Comparison<View>, then: Bits | null, now: Bits | null): Counts {
  const { old, fresh, before, removed } = comparison;
  const { targets, phrases } = commonNumbersOf(comparison);
  const words = fresh.phrases.length + old.phrases.length;
  const { target, anchor } = old.links;
  const { target: targetNow, anchor: anchorNow } = fresh.links;
  const keysThen = keysByPage(then, old, (link) => targets[target[link]] * words + phrases[anchor[link]]);
  const keysNow = keysByPage(now, fresh, (link) => targetNow[link] * words + anchorNow[link]);
  const counts = { new: 0, solved: 0, remaining: 0, gone: 0 };
  for (let is = 0; is < fresh.count; is++) {
    const [then, now] = [keysThen(before[is]), keysNow(is)];
    if (then.length + now.length === 0) continue;
    // Most pages are as they were: then one of the two tells both.
    if (areEqual(then, now)) {
      counts.remaining += distinct(now).length;
      continue;
    }
    const [keys, keysAfter] = [distinct(then), distinct(now)];
    const remaining = countCommon(keys, keysAfter);
    counts.remaining += remaining;
    counts[answers(fresh, is) ? 'solved' : 'gone'] += keys.length - remaining;
    counts.new += keysAfter.length - remaining;
  }
  for (const was of removed) counts.gone += distinct(keysThen(was)).length;
  return counts;
}

/**
 * Compares the findings of two crawls; those that neither has are left out.
 * @param options of each crawl
 * @param isKnown whether one of the crawls has a finding, where their reports tell: the others need not be looked for
 */
export function compareFindings(
  comparison: Comparison<View>,
  [then, now]: [FindingOptions, FindingOptions],
  isKnown: (id: string) => boolean = () => true,
): FindingChange[] {
  const bitsOf = (snapshot: View, finding: Finding, options: FindingOptions) =>
    finding.over !== 'files' && applies(snapshot, finding)
      ? selected(snapshot, finding.over, finding.select(options.thresholds))
      : null;
  return findings.flatMap((finding) => {
    if (!isKnown(finding.id)) return [];
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
