import { noSecrets, settingsSchema } from '$core/settings';
import type { CrawlSettings, Secrets } from '$core/settings';
import { openClient, usualTimeouts } from '../../src/crawl/client';
import type { ClientOptions } from '../../src/crawl/client';
import type { HostLimiter } from '../../src/crawl/hostLimiter';

export type ClientSettings = Partial<CrawlSettings>;

/** A client for the site that a test stands in for. */
export const clientOf = (settings: ClientSettings = {}, options: Partial<ClientOptions> & { secrets?: Secrets } = {}) =>
  openClient({
    settings: settingsSchema.parse({ start: 'http://127.0.0.1/', ...settings }),
    secrets: noSecrets,
    allowPrivate: true,
    timeouts: usualTimeouts,
    ...options,
  });

/** Lets everything begin at once. */
export const unlimited: HostLimiter = {
  wait: async () => {},
  backOff: async () => {},
  answered: () => {},
  isHeld: () => false,
  isLeft: () => false,
  learn: () => {},
  setCrawlDelay: () => {},
};
