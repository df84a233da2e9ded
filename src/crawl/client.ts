import { isIP } from 'node:net';
import { CookieJar } from 'tough-cookie';
import { Agent, buildConnector } from 'undici';
import { scopeOf } from '$core/scope';
import type { AddressOverride, CrawlSettings, Secrets } from '$core/settings';
import { isPrivateAddress, privateError, publicLookup } from './addresses';

export interface Timeouts {
  /** Milliseconds until a connection stands, until the answer begins, and between two pieces of its body. */
  connect: number;
  answer: number;
  /** Milliseconds for an answer as a whole. */
  whole: number;
}
export const usualTimeouts: Timeouts = { connect: 10_000, answer: 30_000, whole: 120_000 };

export interface ClientOptions {
  settings: CrawlSettings;
  secrets: Secrets;
  /** Whether loopback and private addresses may be asked. */
  allowPrivate: boolean;
  /** Cookies of an earlier run of the crawl. */
  cookies?: unknown;
  timeouts?: Timeouts;
}

/** How a crawl asks: its connections, and what it sends along. */
export interface Client {
  agent: Agent;
  timeouts: Timeouts;
  /** Bodies are cut here, before and after decompression. */
  maxBytes: number;
  headersFor: (address: string) => Record<string, string>;
  /** Keeps the cookies of an answer, when they are to be kept. */
  keepCookies: (address: string, setCookie: string | string[] | undefined) => void;
  /** The cookies kept so far; null when none came since they were last asked for. */
  changedCookies: () => unknown;
}

function overrideFor(overrides: readonly AddressOverride[], to: buildConnector.Options) {
  const port = Number(to.port) || (to.protocol === 'https:' ? 443 : 80);
  const ofHost = overrides.filter(({ host }) => host === to.hostname.toLowerCase());
  return ofHost.find((override) => override.port === port) ?? ofHost.find((override) => override.port === undefined);
}

/** Opens connections for a crawl: overrides are looked up first, as a hosts file would be, the name stays in the request. */
function openAgent({ settings, allowPrivate, timeouts = usualTimeouts }: ClientOptions): Agent {
  const connector = buildConnector({
    rejectUnauthorized: !settings.acceptCertificates,
    timeout: timeouts.connect,
    ...(!allowPrivate && { lookup: publicLookup }),
  });
  return new Agent({
    connections: settings.connections,
    headersTimeout: timeouts.answer,
    bodyTimeout: timeouts.answer,
    connect: (options, callback) => {
      const to = overrideFor(settings.overrides, options);
      const hostname = to ? to.toHost : options.hostname.replace(/^\[|\]$/g, '');
      // What is an IP address already is never looked up.
      if (!allowPrivate && isIP(hostname) && isPrivateAddress(hostname)) return callback(privateError(), null);
      const servername = options.servername ?? options.hostname;
      connector(to ? { ...options, hostname, port: String(to.toPort), servername } : options, callback);
    },
  });
}

/** Opens what a crawl asks with. Secrets and cookies go to inside hosts only. */
export function openClient(options: ClientOptions): Client {
  const { settings, secrets } = options;
  const { inside } = scopeOf({ ...settings, folder: '' });
  const jar = options.cookies ? CookieJar.deserializeSync(options.cookies as string) : new CookieJar();
  let changed = false;
  const everywhere: Record<string, string> = {
    'user-agent': settings.userAgent,
    accept: 'text/html,application/xhtml+xml,*/*;q=0.8',
    'accept-encoding': 'gzip, deflate, br, zstd',
    ...(settings.language && { 'accept-language': settings.language }),
  };
  const basic = secrets.basic && Buffer.from(`${secrets.basic.user}:${secrets.basic.password}`).toString('base64');
  const onlyInside: Record<string, string> = {
    ...everywhere,
    ...(basic && { authorization: `Basic ${basic}` }),
    ...Object.fromEntries(secrets.headers.map(({ name, value }) => [name.toLowerCase(), value])),
  };
  return {
    agent: openAgent(options),
    timeouts: options.timeouts ?? usualTimeouts,
    maxBytes: settings.bodyMegabytes << 20,
    headersFor: (address) => {
      if (!inside(address)) return everywhere;
      const kept = settings.keepCookies ? jar.getCookieStringSync(address) : '';
      const cookie = [secrets.cookie, kept].filter(Boolean).join('; ');
      return cookie ? { ...onlyInside, cookie } : onlyInside;
    },
    keepCookies: (address, setCookie) => {
      if (!settings.keepCookies || setCookie === undefined || !inside(address)) return;
      for (const cookie of [setCookie].flat()) jar.setCookieSync(cookie, address, { ignoreError: true });
      changed = true;
    },
    changedCookies: () => {
      if (!changed) return null;
      changed = false;
      return jar.serializeSync();
    },
  };
}
