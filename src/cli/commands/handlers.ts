/** What the commands are given, and who does them. */
import type { CrawlSettings } from '$core/settings';
import type { CompareCall } from '../compare';
import type { DraftCall, PlanCommandCall } from '../draft';
import type { GraphCall } from '../graph';
import type { ImportCall } from '../import';
import type { ViewOptions } from '../options';
import type { RobotsCompareCall, RobotsTestCall } from '../robots';
import type { SampleCall } from '../sample';
import type { SuggestCall } from '../suggest';
import type { SitemapWriteCall } from '../sitemapWrite';

export interface CrawlCall {
  settings: CrawlSettings;
  /** Addresses that a settings file of an earlier version holds. */
  lists: string[];
  /** Folder for pages.csv, links.csv and summary.json. */
  out: string | null;
  view: ViewOptions;
  /** Whether loopback and private addresses may be asked. */
  allowPrivate: boolean;
}

/** What the commands do; each gives the exit code. */
export interface Handlers {
  crawl: (call: CrawlCall) => Promise<number>;
  export: (call: { crawl: number; out: string; view: ViewOptions; tables: boolean }) => Promise<number>;
  graph: (call: GraphCall) => Promise<number>;
  select: (call: { crawl: number; view: ViewOptions }) => Promise<number>;
  sample: (call: SampleCall) => Promise<number>;
  import: (call: ImportCall) => Promise<number>;
  sources: (call: { crawl: number; out: string }) => Promise<number>;
  sitemapCheck: (call: { source: string; json: boolean }) => Promise<number>;
  sitemapWrite: (call: SitemapWriteCall) => Promise<number>;
  anchors: (call: { crawl: number; out: string }) => Promise<number>;
  suggest: (call: SuggestCall) => Promise<number>;
  compare: (call: CompareCall) => Promise<number>;
  draft: (call: DraftCall) => Promise<number>;
  plan: (call: PlanCommandCall) => Promise<number>;
  robotsTest: (call: RobotsTestCall) => Promise<number>;
  robotsCheck: (call: { source: string; json: boolean }) => Promise<number>;
  robotsCompare: (call: RobotsCompareCall) => Promise<number>;
  worker: () => Promise<number>;
  serve: () => Promise<number>;
  migrate: () => Promise<number>;
  demo: (port: number) => Promise<number>;
}

/** Makes of a handler what commander calls, which keeps its exit code. */
export type Runs = <A extends unknown[]>(handler: (...words: A) => Promise<number>) => (...words: A) => Promise<void>;
