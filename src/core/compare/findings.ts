/** What became of each finding: new, solved, still there, or gone with its page, which is something else. */
import { applies, faultsOfFiles, findings, selected } from '../findings';
import type { Finding, FindingOptions } from '../findings';
import { eachBit } from '../selection';
import { addressAt, sourcesOf } from '../snapshot';
import type { Snapshot } from '../snapshot';
import type { AddressMap, PageChange } from './pages';

export interface FindingChange {
  finding: string;
  /** Occurrences: pages, links by their source, target and words, or lines of files. */
  new: number;
  solved: number;
  remaining: number;
  /** Of those that were there: no longer, because the page no longer answers. */
  gone: number;
}

/** Each occurrence by what it is about, with the page that it is on; '' for a file. */
function occurrences(snapshot: Snapshot, finding: Finding, options: FindingOptions, map: AddressMap) {
  const found = new Map<string, string>();
  if (finding.over === 'files') {
    for (const { fault, file, evidence } of faultsOfFiles(snapshot, options))
      if (fault === finding.id) found.set(`${map(file)} ${JSON.stringify(evidence)}`, '');
    return found;
  }
  if (!applies(snapshot, finding)) return found;
  const bits = selected(snapshot, finding.over, finding.select(options.thresholds));
  if (finding.over === 'pages')
    eachBit(bits, (page) => {
      const address = map(addressAt(snapshot, page));
      found.set(address, address);
    });
  else {
    const sources = sourcesOf(snapshot);
    const { target, anchor } = snapshot.links;
    eachBit(bits, (link) => {
      const source = map(addressAt(snapshot, sources[link]));
      found.set(`${source} ${map(addressAt(snapshot, target[link]))} ${snapshot.phrases[anchor[link]]}`, source);
    });
  }
  return found;
}

/**
 * Compares the findings of two crawls; those that neither has are left out.
 * @param pages as `comparePages` gives them
 * @param options of each crawl
 */
export function compareFindings(
  old: Snapshot,
  fresh: Snapshot,
  pages: readonly PageChange[],
  [oldOptions, freshOptions]: [FindingOptions, FindingOptions],
  map: AddressMap = (address) => address,
): FindingChange[] {
  const answers = ({ columns: { status } }: Snapshot, page: number) =>
    page >= 0 && status[page] >= 200 && status[page] < 300;
  const stillThere = new Set(pages.filter(({ fresh: page }) => answers(fresh, page)).map(({ address }) => address));
  return findings.flatMap((finding) => {
    const before = occurrences(old, finding, oldOptions, map);
    const after = occurrences(fresh, finding, freshOptions, map);
    const change = { finding: finding.id, new: 0, solved: 0, remaining: 0, gone: 0 };
    for (const [key, page] of before)
      if (after.has(key)) change.remaining++;
      else if (page === '' || stillThere.has(page)) change.solved++;
      else change.gone++;
    for (const key of after.keys()) if (!before.has(key)) change.new++;
    return before.size + after.size ? [change] : [];
  });
}
