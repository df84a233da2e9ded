/** Settings in which two crawls differ, and what that makes incomparable. */
import type { CrawlSettings } from '../settings';

export interface SettingChange {
  name: string;
  before: unknown;
  after: unknown;
}

/** The settings that differ. */
export const compareSettings = (old: CrawlSettings, fresh: CrawlSettings): SettingChange[] =>
  (Object.keys(fresh) as (keyof CrawlSettings)[]).flatMap((name) =>
    JSON.stringify(old[name]) === JSON.stringify(fresh[name]) ? [] : [{ name, before: old[name], after: fresh[name] }],
  );
