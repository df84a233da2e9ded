import { z } from 'zod';

const override = z.object({
  /** Host of the address, lower case, without port. */
  host: z.string().min(1),
  /** Only for this port of the address; any port when absent. */
  port: z.number().int().min(1).max(65535).optional(),
  /** Where the connection goes instead: host name or IP address, and port. */
  toHost: z.string().min(1),
  toPort: z.number().int().min(1).max(65535),
});

/** What decides how a site is crawled; stored with every crawl as it was. */
export const settingsSchema = z.object({
  start: z.string(),
  /** Fetch at most so many addresses. */
  limit: z.number().int().min(1).max(10_000_000).default(100_000),
  /** Fetch nothing further than so many clicks from where a route begins. */
  depth: z.number().int().min(0).max(10_000).nullable().default(null),
  /** How many requests may be under way at once. */
  connections: z.number().int().min(1).max(64).default(8),
  robots: z.enum(['obey', 'look-past']).default('obey'),
  /** Sitemaps to read besides those that robots.txt names. */
  sitemaps: z.array(z.string()).default([]),
  overrides: z.array(override).default([]),
  acceptCertificates: z.boolean().default(false),
});

export type CrawlSettings = z.infer<typeof settingsSchema>;
export type AddressOverride = z.infer<typeof override>;

/** The product token that robots.txt and agent-named rules are read for. */
export const PRODUCT_TOKEN = 'edgemap';
export const USER_AGENT = 'EdgeMap/0.1';

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
