import { z } from '../schema';
import { editingPatternFault } from '../editingAddress';
import { MAX_TOLERANCE } from '../duplicates/tolerance';
import { MAX_PATTERN_LENGTH } from '../scope';
import { agents, defaultAgent } from './agents';

const override = z.object({
  /** Host of the address, lower case, without port. */
  host: z.string().min(1),
  /** Only for this port of the address; any port when absent. */
  port: z.number().int().min(1).max(65535).optional(),
  /** Where the connection goes instead: host name or IP address, and port. */
  toHost: z.string().min(1),
  toPort: z.number().int().min(1).max(65535),
});

const address = z.string().max(8192);
const pattern = z.string().min(1).max(MAX_PATTERN_LENGTH);
const host = z.string().regex(/^[^\s/?#@]+$/, 'is not a host');
/** A header value or name must not end the line it stands on. */
const headerText = z
  .string()
  .max(8192)
  .regex(/^[\t\x20-\x7e\x80-\xff]*$/, 'holds characters that a header cannot');

/** What is sent with requests and must not be seen by others; stored encrypted, left out of every export. */
export const secretsSchema = z.object({
  headers: z
    .array(
      z.object({
        name: z.string().regex(/^[!#$%&'*+.^_`|~0-9A-Za-z-]+$/, 'is not the name of a header'),
        value: headerText,
      }),
    )
    .max(50)
    .default([]),
  /** A Cookie header to begin with, `name=value; name=value`; '' for none. */
  cookie: headerText.default(''),
  /** User and password of basic authentication, for inside hosts only. */
  basic: z
    .object({ user: z.string().max(500), password: z.string().max(500) })
    .nullable()
    .default(null),
});
export type Secrets = z.infer<typeof secretsSchema>;
export const noSecrets: Secrets = { headers: [], cookie: '', basic: null };

/** Kinds of links besides `a` and `area` that lead to pages, and whether what they lead to is fetched. */
export const followable = ['nofollow', 'canonical', 'paging', 'hreflang', 'amphtml', 'iframe', 'refresh'] as const;
export type Followable = (typeof followable)[number];

const MAX_COUNT = 10_000_000;
/** Of each page that is fetched, so many addresses may be known, and always so many. */
const KNOWN_PER_PAGE = 20;
const LEAST_KNOWN = 1_000_000;
const MAX_KNOWN = KNOWN_PER_PAGE * MAX_COUNT;

const weight = z.number().min(0).max(100).default(1);

/** What decides how a site is crawled; stored with every crawl as it was. Secrets are kept apart. */
export const settingsSchema = z.object({
  start: address,
  /** Further addresses to start from, at depth 0. */
  starts: z.array(address).default([]),

  hosts: z.array(host).default([]),
  subdomains: z.boolean().default(false),
  folder: z
    .string()
    .regex(/^(\/([^?#\s]*\/)?)?$/, 'begins and ends with /')
    .default(''),
  include: z.array(pattern).max(500).default([]),
  exclude: z.array(pattern).max(500).default([]),
  dropParameters: z.array(z.string().min(1)).max(500).default([]),
  sortParameters: z.boolean().default(false),

  /** Fetch at most so many addresses. */
  limit: z.number().int().min(1).max(MAX_COUNT).default(100_000),
  /** Know at most so many addresses; null for as many as {@link knownLimitOf} says. */
  knownLimit: z.number().int().min(1).max(MAX_KNOWN).nullable().default(null),
  /** Fetch nothing further than so many clicks from where a route begins. */
  depth: z.number().int().min(0).max(10_000).nullable().default(null),
  /** End after so many MiB received. */
  megabytes: z.number().int().min(1).max(10_000_000).nullable().default(null),
  /** End after so many minutes. */
  minutes: z.number().int().min(1).max(100_000).nullable().default(null),
  /** Read at most so many MiB of one answer. */
  bodyMegabytes: z.number().int().min(1).max(100).default(20),
  /** Fetch at most so many addresses of a family that grows without end. */
  trapLimit: z.number().int().min(10).max(MAX_COUNT).default(500),

  /** How many requests may be under way at once. */
  connections: z.number().int().min(1).max(64).default(8),
  /** Requests a second to one host; null for as many as the connections allow. */
  rate: z.number().min(0.01).max(1000).nullable().default(null),
  keepCrawlDelay: z.boolean().default(true),
  /** How often a request is repeated that failed in a way that may pass. */
  retries: z.number().int().min(0).max(10).default(2),

  robots: z.enum(['obey', 'look-past']).default('obey'),
  /** What the crawler calls itself in requests, and the product token rules are read for. */
  userAgent: headerText.min(1).default(agents[defaultAgent].userAgent),
  token: z
    .string()
    .regex(/^[a-z_-]{1,100}$/i, 'is made of letters, - and _')
    .default(agents[defaultAgent].token),
  /** Accept-Language; '' to send none. */
  language: headerText.default(''),
  /** Whether cookies that the site sets are sent back, within one crawl. */
  keepCookies: z.boolean().default(false),

  follow: z
    .object({
      nofollow: z.boolean().default(true),
      canonical: z.boolean().default(true),
      paging: z.boolean().default(true),
      hreflang: z.boolean().default(true),
      amphtml: z.boolean().default(true),
      iframe: z.boolean().default(true),
      refresh: z.boolean().default(true),
    })
    .prefault({}),
  /** Which resources are asked for, to learn whether they answer. */
  check: z
    .object({
      image: z.boolean().default(false),
      script: z.boolean().default(false),
      style: z.boolean().default(false),
      other: z.boolean().default(false),
    })
    .prefault({}),
  external: z.enum(['record', 'check']).default('record'),
  /** Outside addresses that are checked at most. */
  externalLimit: z.number().int().min(1).max(MAX_COUNT).default(1000),
  /** Whether fragments of links are looked up among the ids of their targets. */
  fragments: z.boolean().default(true),

  /** Names of sections by patterns of addresses; the first that matches. */
  sections: z
    .array(z.object({ pattern, name: z.string().trim().min(1).max(100) }))
    .max(500)
    .default([]),
  /** In how many of 64 bits the fingerprints of near-duplicates may differ. */
  nearTolerance: z.number().int().min(0).max(MAX_TOLERANCE).default(3),
  /** What a link weighs in share by where it stands; in `main` and in no landmark it weighs 1. */
  weights: z.object({ header: weight, nav: weight, aside: weight, footer: weight }).prefault({}),
  /** Where findings begin. */
  thresholds: z
    .object({
      deepClicks: z.number().int().min(1).max(10_000).default(3),
      starvingShare: z.number().min(0).max(1000).default(0.3),
      crowdedLinks: z.number().int().min(1).max(1_000_000).default(150),
      gatePages: z.number().int().min(1).max(10_000_000).default(10),
      thinWords: z.number().int().min(0).max(100_000).default(50),
    })
    .prefault({}),

  sitemapsFromRobots: z.boolean().default(true),
  /** Whether /sitemap.xml and its like are tried when robots.txt names none. */
  usualSitemaps: z.boolean().default(true),
  /** Sitemaps to read besides those. */
  sitemaps: z.array(address).default([]),
  /** Minutes that a crawl goes on reading sitemaps when nothing else is left to do before them. */
  sitemapMinutes: z.number().int().min(1).max(100_000).default(10),

  /**
   * IP addresses and subnets of search crawlers, by which their hits in logs are told; [] to tell them by their agents.
   */
  crawlerAddresses: z.array(z.string().max(60)).max(10_000).default([]),

  /** Whether words in code may become links; applies at once. */
  linksInCode: z.boolean().default(false),

  /** Where a page is edited: an address with what tells the page (src/core/editingAddress); '' for nowhere. */
  editing: z
    .string()
    .max(2000)
    .superRefine((pattern, context) => {
      const fault = pattern && editingPatternFault(pattern);
      if (fault) context.addIssue({ code: 'custom', message: fault });
    })
    .default(''),

  overrides: z.array(override).default([]),
  acceptCertificates: z.boolean().default(false),
});

export type CrawlSettings = z.infer<typeof settingsSchema>;

/** How many addresses a crawl may know. */
export const knownLimitOf = ({ limit, knownLimit }: Pick<CrawlSettings, 'limit' | 'knownLimit'>) =>
  knownLimit ?? Math.max(LEAST_KNOWN, KNOWN_PER_PAGE * limit);
export type AddressOverride = z.infer<typeof override>;

/**
 * Reads `host[:port]=address:port`, the line of a hosts file with ports.
 * @returns null when it is not of that form
 */
export function parseOverride(text: string): AddressOverride | null {
  const found = /^\s*([^\s=:]+)(?::(\d{1,5}))?\s*=\s*(\[[0-9a-f:.]+\]|[^\s=:]+):(\d{1,5})\s*$/i.exec(text);
  if (!found) return null;
  const result = override.safeParse({
    host: found[1].toLowerCase(),
    port: found[2] ? Number(found[2]) : undefined,
    toHost: found[3].replace(/^\[|\]$/g, ''),
    toPort: Number(found[4]),
  });
  return result.success ? result.data : null;
}

/** The reverse of {@link parseOverride}. */
export const formatOverride = ({ host, port, toHost, toPort }: AddressOverride) =>
  `${host}${port ? `:${port}` : ''}=${toHost.includes(':') ? `[${toHost}]` : toHost}:${toPort}`;
