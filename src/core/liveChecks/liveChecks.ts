/** What is asked of a website anew, at once and apart from a crawl, when a person wants to know how it answers now. */
import type { Edit, Outcome } from '../draft';
import type { Message } from '../messages';
import type { SitemapFault, SitemapKind } from '../sitemap';
import type { VariantKind } from '../rules';
import type { FileAnswer } from '../snapshot';

export const liveCheckKinds = ['sitemap', 'robots', 'variants', 'edits'] as const;
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

/** Edits of a draft, by their ids, and the pages to be looked at for them. */
export interface EditCheck {
  edits: (Edit & { id: string })[];
  addresses: string[];
}

/** What has become of edits. */
export interface LiveEdits {
  /** How many addresses were asked. */
  pages: number;
  outcomes: Record<string, Outcome>;
}

/** What a live check of each kind needs besides an address. */
export interface LiveQuestions {
  sitemap: null;
  robots: null;
  variants: null;
  edits: EditCheck;
}

/** What a live check of each kind finds out. */
export interface LiveResults {
  sitemap: LiveSitemap;
  robots: LiveRobots;
  variants: LiveVariant[];
  edits: LiveEdits;
}

export type LiveCheckState = 'waiting' | 'running' | 'done' | 'failed';

/** A live check, and what it has found out so far. */
export interface LiveCheck<K extends LiveCheckKind = LiveCheckKind> {
  id: number;
  kind: K;
  /** The address that is asked; for edits the start of the site. */
  address: string;
  state: LiveCheckState;
  /** Milliseconds since 1970 when it ended; null before. */
  endedAt: number | null;
  result: LiveResults[K] | null;
  /** Why it failed. */
  fault: Message | null;
}
