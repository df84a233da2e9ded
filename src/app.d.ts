import type { Version } from '$lib/shell/routes';
import type { Access } from './routes/access';
import type { CrawlState, SiteName } from '$server/index';

declare global {
  namespace App {
    interface Error {
      message: string;
      /** What the reader can do about it. */
      remedy?: string;
    }
    interface Locals {
      /** What the person who asks may do. */
      access: Access;
      /** The site and the crawl that the address names; null when there are none such. */
      site: SiteName | null;
      crawl: CrawlState | null;
      /** Whether the crawl is asked for as it was crawled, or with a draft. */
      version: Version;
      /** Why neither could be looked up. */
      failure?: unknown;
    }
  }
}

export {};
