import { normalizeEscapes } from '../url';

export interface RobotsRule {
  allow: boolean;
  /** As written in the file. */
  pattern: string;
  /** 1-based line of the file. */
  line: number;
}

export interface RobotsGroup {
  /** Product tokens in lower case; `*` for every crawler. */
  agents: string[];
  rules: RobotsRule[];
}

export interface RobotsFile {
  groups: RobotsGroup[];
  /** Crawl-delay lines: seconds, for the agents named before them. The standard does not know them; they end no group. */
  delays: { agents: string[]; seconds: number }[];
  sitemaps: { address: string; line: number }[];
}

/** RFC 9309 §2.5: at least 500 KiB must be read. */
export const MAX_ROBOTS_BYTES = 512 * 1024;

/** The product token at the start of a User-agent value: letters, `_` and `-` (RFC 9309 §2.2.1). */
const productToken = (value: string) =>
  value.startsWith('*') ? '*' : (/^[a-z_-]+/i.exec(value)?.[0] ?? '').toLowerCase();

/**
 * Parses a robots.txt (RFC 9309 §2.2). Rules before any group and unknown lines are passed over; unknown lines do not
 * end a group.
 */
export function parseRobots(text: string): RobotsFile {
  const file: RobotsFile = { groups: [], delays: [], sitemaps: [] };
  let group: RobotsGroup | null = null;
  let lineNumber = 0;
  for (const line of text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/)) {
    lineNumber++;
    const content = line.split('#', 1)[0];
    const colon = content.indexOf(':');
    if (colon < 0) continue;
    const key = content.slice(0, colon).trim().toLowerCase();
    const value = content.slice(colon + 1).trim();
    if (key === 'user-agent') {
      if (!group || group.rules.length > 0) file.groups.push((group = { agents: [], rules: [] }));
      group.agents.push(productToken(value));
    } else if (key === 'allow' || key === 'disallow') {
      group?.rules.push({ allow: key === 'allow', pattern: value, line: lineNumber });
    } else if (key === 'crawl-delay') {
      const seconds = Number(value);
      if (group && value && seconds >= 0) file.delays.push({ agents: [...group.agents], seconds });
    } else if (key === 'sitemap' && value) {
      file.sitemaps.push({ address: value, line: lineNumber });
    }
  }
  return file;
}

/** Percent-encodes what a URL never holds unescaped, so that rule and address are compared in one form. */
export function normalizePattern(pattern: string): string {
  return normalizeEscapes(pattern.replace(/[^\x21-\x7e]+/gu, (text) => encodeURIComponent(text)));
}
