import { isIP } from 'node:net';
import { Agent, buildConnector } from 'undici';
import { bareHost, scopeOf } from '$core/scope';
import type { AddressOverride, CrawlSettings, Secrets } from '$core/settings';
import { addressParts, originOf } from '$core/url';
import { isPrivateAddress, privateError, publicLookup } from './addresses';
import { cookieJar } from './cookies';

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

/** The host that a connection is for, as addresses have it: with its port unless that is the usual one. */
function hostOf({ protocol, hostname, port }: buildConnector.Options): string {
  const name = hostname.includes(':') && !hostname.startsWith('[') ? `[${hostname}]` : hostname;
  const usual = protocol === 'https:' ? 443 : 80;
  return Number(port) && Number(port) !== usual ? `${name}:${port}` : name;
}

/**
 * Opens connections for a crawl: overrides are looked up first, as a hosts file would be, the name stays in the
 * request. Private addresses are asked only where that is allowed and a person has named the host: what a website says
 * must not aim the crawler at them.
 */
function openAgent({ settings, allowPrivate, timeouts = usualTimeouts }: ClientOptions): Agent {
  const usual = { rejectUnauthorized: !settings.acceptCertificates, timeout: timeouts.connect };
  const anywhere = buildConnector(usual);
  const publicOnly = buildConnector({ ...usual, lookup: publicLookup });
  const named = new Set(
    [settings.start, ...settings.starts]
      .map((address) => addressParts(address).host)
      .concat(settings.hosts)
      .map(bareHost),
  );
  return new Agent({
    connections: settings.connections,
    headersTimeout: timeouts.answer,
    bodyTimeout: timeouts.answer,
    connect: (options, callback) => {
      const to = overrideFor(settings.overrides, options);
      const hostname = to ? to.toHost : options.hostname.replace(/^\[|\]$/g, '');
      const mayBePrivate = allowPrivate && (to !== undefined || named.has(bareHost(hostOf(options))));
      // What is an IP address already is never looked up.
      if (!mayBePrivate && isIP(hostname) && isPrivateAddress(hostname)) return callback(privateError(), null);
      const servername = options.servername ?? options.hostname;
      const connect = mayBePrivate ? anywhere : publicOnly;
      connect(to ? { ...options, hostname, port: String(to.toPort), servername } : options, callback);
    },
  });
}

/**
 * Makes the test whether an address may be sent the secrets of a site: it must be of the host of a start, and of its
 * scheme or a safer one.
 */
function secretsTest({ start, starts }: CrawlSettings): (address: string) => boolean {
  const origins = new Set(
    [start, ...starts].map(originOf).flatMap((origin) => [origin, origin.replace(/^http:/, 'https:')]),
  );
  return (address) => origins.has(originOf(address));
}

/** Opens what a crawl asks with. Secrets go to the hosts of starts only, kept cookies to inside hosts only. */
export function openClient(options: ClientOptions): Client {
  const { settings, secrets } = options;
  const { inside } = scopeOf({ ...settings, folder: '' });
  const maySendSecrets = secretsTest(settings);
  const jar = cookieJar(options.cookies);
  const everywhere: Record<string, string> = {
    'user-agent': settings.userAgent,
    accept: 'text/html,application/xhtml+xml,*/*;q=0.8',
    'accept-encoding': 'gzip, deflate, br',
    ...(settings.language && { 'accept-language': settings.language }),
  };
  const basic = secrets.basic && Buffer.from(`${secrets.basic.user}:${secrets.basic.password}`).toString('base64');
  const withSecrets: Record<string, string> = {
    ...everywhere,
    ...(basic && { authorization: `Basic ${basic}` }),
    ...Object.fromEntries(secrets.headers.map(({ name, value }) => [name.toLowerCase(), value])),
  };
  return {
    agent: openAgent(options),
    timeouts: options.timeouts ?? usualTimeouts,
    maxBytes: settings.bodyMegabytes << 20,
    headersFor: (address) => {
      const trusted = maySendSecrets(address);
      const kept = settings.keepCookies && inside(address) ? jar.headerFor(address) : '';
      const cookie = [trusted && secrets.cookie, kept].filter(Boolean).join('; ');
      const headers = trusted ? withSecrets : everywhere;
      return cookie ? { ...headers, cookie } : headers;
    },
    keepCookies: (address, setCookie) => {
      if (!settings.keepCookies || setCookie === undefined || !inside(address)) return;
      for (const cookie of [setCookie].flat()) jar.keep(cookie, address);
    },
    changedCookies: jar.changed,
  };
}
