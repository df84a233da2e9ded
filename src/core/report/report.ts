/** What the screens show of a whole crawl and is too much work to find out whenever one is opened. */
import { INDEXABLE } from '../facts';
import { findings as catalogue, findingsOf } from '../findings';
import type { FindingOptions, FindingResult } from '../findings';
import { knownShare, leaksOf, sectionFlow } from '../share';
import type { Leak, PlacementWeights, SectionFlow } from '../share';
import { countPages } from '../snapshot';
import { trendCounts } from '../trend';
import type { TrendCounts } from '../trend';
import type { View } from '../view';

/** What a list of crawls and a trend over them show. */
export interface ReportCounts {
  known: number;
  indexable: number;
  /** Indexable pages without a route. */
  noRoute: number;
  findings: number;
  /** What a timeline shows besides; absent in the counts of crawls that earlier versions have analysed. */
  trend?: TrendCounts;
}

/** Made once for each crawl and stored with its snapshot, as JSON. */
export interface Report {
  counts: ReportCounts;
  /** Those that cost most first. */
  findings: FindingResult[];
  /** Ids of all findings there were, in the order of the bits of {@link PageFindings}. */
  ids: string[];
  leaks: Leak[];
  flow: SectionFlow;
}

/** The findings of each page: as many bytes a page as it takes, a bit for each of the ids of its report. */
export type PageFindings = Uint8Array;

const bytesFor = (ids: readonly string[]) => Math.ceil(ids.length / 8);
const allIds = catalogue.map(({ id }) => id);

/** The ids of the findings of one page. @param ids those of the report */
export function findingsAt(found: PageFindings, page: number, ids: readonly string[]): string[] {
  const from = page * bytesFor(ids);
  return ids.filter((_, i) => found[from + (i >> 3)] & (1 << (i & 7)));
}

export interface ReportSettings extends FindingOptions {
  weights: PlacementWeights;
}

/** Draws up the report of a crawl. */
export function reportOf(snapshot: View, settings: ReportSettings): { report: Report; pages: PageFindings } {
  const { weights } = settings;
  const bytesEach = bytesFor(allIds);
  const place = new Map(allIds.map((id, i) => [id, i]));
  const pages = new Uint8Array(snapshot.count * bytesEach);
  const findings = findingsOf(snapshot, settings, (id, page) => {
    const bit = place.get(id)!;
    pages[page * bytesEach + (bit >> 3)] |= 1 << (bit & 7);
  });
  const verdict = snapshot.column('verdict');
  const depth = snapshot.column('depth');
  const indexable = (page: number) => verdict[page] === INDEXABLE;
  const share = knownShare(snapshot, weights);
  const report: Report = {
    counts: {
      known: snapshot.count,
      indexable: countPages(snapshot, indexable),
      noRoute: countPages(snapshot, (page) => indexable(page) && depth[page] < 0),
      findings: findings.length,
      trend: trendCounts(snapshot),
    },
    findings,
    ids: allIds,
    leaks: leaksOf(snapshot, share),
    flow: sectionFlow(snapshot, share, weights),
  };
  return { report, pages };
}
