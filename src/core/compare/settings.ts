/** Settings in which two crawls differ, and what that makes incomparable. */
import type { CrawlSettings } from '../settings';

/**
 * What a difference of settings speaks against comparing: `known`, which pages are known; `verdict`, what answers and
 * what may be indexed; `links`, which links count; `share`; `section`; `findings`.
 */
export const incomparables = ['known', 'verdict', 'links', 'share', 'section', 'findings'] as const;
export type Incomparable = (typeof incomparables)[number];

/** Settings that are not named make nothing incomparable, such as how fast a crawl asks. */
const speaksAgainst: Partial<Record<keyof CrawlSettings, Incomparable>> = {
  start: 'known',
  starts: 'known',
  hosts: 'known',
  subdomains: 'known',
  folder: 'known',
  include: 'known',
  exclude: 'known',
  dropParameters: 'known',
  sortParameters: 'known',
  limit: 'known',
  knownLimit: 'known',
  depth: 'known',
  megabytes: 'known',
  minutes: 'known',
  bodyMegabytes: 'known',
  trapLimit: 'known',
  follow: 'known',
  sitemapsFromRobots: 'known',
  usualSitemaps: 'known',
  sitemaps: 'known',
  sitemapMinutes: 'known',
  robots: 'verdict',
  userAgent: 'verdict',
  token: 'verdict',
  language: 'verdict',
  keepCookies: 'verdict',
  fragments: 'links',
  external: 'links',
  weights: 'share',
  sections: 'section',
  thresholds: 'findings',
  nearTolerance: 'findings',
};

export interface SettingChange {
  name: keyof CrawlSettings;
  before: unknown;
  after: unknown;
  /** Null where it makes no difference to what is compared. */
  against: Incomparable | null;
}

/** The settings that differ. */
export const compareSettings = (old: CrawlSettings, fresh: CrawlSettings): SettingChange[] =>
  (Object.keys(fresh) as (keyof CrawlSettings)[]).flatMap((name) =>
    JSON.stringify(old[name]) === JSON.stringify(fresh[name])
      ? []
      : [{ name, before: old[name], after: fresh[name], against: speaksAgainst[name] ?? null }],
  );
