/** What is asked of a website anew, at once and apart from a crawl, when a person wants to know how it answers now. */
import type { Message } from '../messages';
import type { SitemapFault, SitemapKind } from '../sitemap';
import type { VariantKind } from '../rules';
import type { FileAnswer } from '../snapshot';

export const liveCheckKinds = ['sitemap', 'robots', 'variants'] as const;
export type LiveCheckKind = (typeof liveCheckKinds)[number];

/** A sitemap as it is now. */
export interface LiveSitemap {
  /** Null when no answer came. */
  answer: FileAnswer | null;
  kind: SitemapKind;
  entries: number;
  /** All that were found. */
  faultCount: number;
  /** The first of them. */
  faults: SitemapFault[];
}

/** A robots.txt as it is now. */
export interface LiveRobots {
  /** Null when no answer came. */
  answer: FileAnswer | null;
  /** Why it could not be read; then it closes its host. */
  fault: Message | null;
  body: string;
}

/** What one way of writing the address of a page answers now. */
export interface LiveVariant {
  kind: VariantKind;
  address: string;
  /** Null when no answer came. */
  status: number | null;
  fault: Message | null;
  /** Where a redirect leads at once; null for none. */
  leadsTo: string | null;
}

/** What a live check of each kind finds out. */
export interface LiveResults {
  sitemap: LiveSitemap;
  robots: LiveRobots;
  variants: LiveVariant[];
}

export type LiveCheckState = 'waiting' | 'running' | 'done' | 'failed';

/** A live check, and what it has found out so far. */
export interface LiveCheck<K extends LiveCheckKind = LiveCheckKind> {
  id: number;
  kind: K;
  /** The address that is asked. */
  address: string;
  state: LiveCheckState;
  /** Milliseconds since 1970 when it ended; null before. */
  endedAt: number | null;
  result: LiveResults[K] | null;
  /** Why it failed. */
  fault: Message | null;
}
