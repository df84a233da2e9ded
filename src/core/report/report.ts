/** What the screens show of a whole crawl and is too much work to find out whenever one is opened. */
import { countPages } from '../answers/pieces';
import { findings as catalogue, findingSteps } from '../findings';
import type { Found } from '../findings';
import type { CrawlSettings } from '../settings';
import { knownShare, leaksOf, sectionFlow } from '../share';
import type { Leak, SectionFlow } from '../share';
import type { Snapshot } from '../snapshot';
import { verdicts } from '../verdict';

/** Made once for each crawl and stored with its snapshot, as JSON. */
export interface Report {
  /** What a trend over crawls shows. */
  counts: { known: number; indexable: number; noRoute: number; findings: number };
  /** Those that cost most first. */
  findings: Found[];
  leaks: Leak[];
  flow: SectionFlow;
}

/**
 * The findings of each page: as many bytes a page as it takes, a bit for each entry of the catalogue. Another catalogue
 * gives the bits another meaning: with it SNAPSHOT_VERSION is counted up.
 */
export type PageFindings = Uint8Array;

const bytesEach = Math.ceil(catalogue.length / 8);
const place = new Map(catalogue.map(({ id }, i) => [id, i]));

/** The ids of the findings of one page. */
export const findingsAt = (found: PageFindings, page: number): string[] =>
  catalogue.filter((_, i) => found[page * bytesEach + (i >> 3)] & (1 << (i & 7))).map(({ id }) => id);

/** Draws up the report of a crawl, with pauses for whoever does something else meanwhile. */
export function* reportSteps(
  snapshot: Snapshot,
  { thresholds, token, weights }: CrawlSettings,
): Generator<undefined, { report: Report; pages: PageFindings }> {
  const pages = new Uint8Array(snapshot.count * bytesEach);
  const findings = yield* findingSteps(snapshot, { thresholds, token }, (id, page) => {
    const bit = place.get(id)!;
    pages[page * bytesEach + (bit >> 3)] |= 1 << (bit & 7);
  });
  const verdict = snapshot.columns.verdict as Int32Array;
  const depth = snapshot.columns.depth as Int32Array;
  const indexable = (page: number) => verdicts[verdict[page]] === 'indexable';
  const share = knownShare(snapshot, weights);
  yield;
  const report: Report = {
    counts: {
      known: snapshot.count,
      indexable: countPages(snapshot, indexable),
      noRoute: countPages(snapshot, (page) => indexable(page) && depth[page] < 0),
      findings: findings.length,
    },
    findings,
    leaks: leaksOf(snapshot, share),
    flow: sectionFlow(snapshot, share, weights),
  };
  return { report, pages };
}
