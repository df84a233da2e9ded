import type { RobotsRule } from '../facts';
import { normalizeEscapes } from '../url';

/** A rule as it stands in its group. */
export type GroupRule = Omit<RobotsRule, 'group'>;

export interface RobotsGroup {
  /** Product tokens in lower case; `*` for every crawler. */
  agents: string[];
  /** The line that names each of them. */
  agentLines: number[];
  rules: GroupRule[];
}

export interface RobotsFile {
  groups: RobotsGroup[];
  /**
   * The longest Crawl-delay for each agent that stands before one in its group, in seconds. The standard does not know
   * these lines; they end no group.
   */
  delays: Map<string, number>;
  sitemaps: { address: string; line: number }[];
  faults: RobotsFault[];
}

export interface RobotsFault {
  /**
   * `early`: a rule before any group, which holds for nobody; `unknown`: a line that the standard does not know;
   * `empty`: a group without rules, which opens everything to its crawlers.
   */
  kind: 'early' | 'unknown' | 'empty';
  line: number;
  /** The line as written. */
  text: string;
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
  const file: RobotsFile = { groups: [], delays: new Map(), sitemaps: [], faults: [] };
  let group: RobotsGroup | null = null;
  /** Delays of the group at hand, each with how many agents were named before it. */
  let delays: { named: number; seconds: number }[] = [];
  let lineNumber = 0;
  let groupLine = { line: 0, text: '' };
  const endGroup = () => {
    if (!group) return;
    let longest = -1;
    for (let i = group.agents.length - 1; i >= 0; i--) {
      while (delays.length && delays[delays.length - 1].named > i) longest = Math.max(longest, delays.pop()!.seconds);
      const agent = group.agents[i];
      if (longest >= 0) file.delays.set(agent, Math.max(longest, file.delays.get(agent) ?? 0));
    }
    delays = [];
  };
  for (const line of text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/)) {
    lineNumber++;
    const content = line.split('#', 1)[0];
    const colon = content.indexOf(':');
    const fault = (kind: RobotsFault['kind']) =>
      file.faults.push({ kind, line: lineNumber, text: line.trim().slice(0, 200) });
    if (colon < 0) {
      if (content.trim()) fault('unknown');
      continue;
    }
    const key = content.slice(0, colon).trim().toLowerCase();
    const value = content.slice(colon + 1).trim();
    if (key === 'user-agent') {
      if (!group || group.rules.length > 0) {
        endGroup();
        file.groups.push((group = { agents: [], agentLines: [], rules: [] }));
      }
      groupLine = { line: lineNumber, text: line.trim() };
      group.agents.push(productToken(value));
      group.agentLines.push(lineNumber);
    } else if (key === 'allow' || key === 'disallow') {
      if (group) group.rules.push({ line: lineNumber, directive: key, path: value });
      else fault('early');
    } else if (key === 'crawl-delay') {
      const seconds = Number(value);
      if (group && value && seconds >= 0 && seconds < Infinity) delays.push({ named: group.agents.length, seconds });
    } else if (key === 'sitemap' && value) {
      file.sitemaps.push({ address: value, line: lineNumber });
    } else if (key !== 'sitemap') fault('unknown');
  }
  endGroup();
  // Agents named in a row are one group, so only the last one can be without rules.
  if (group && (group as RobotsGroup).rules.length === 0) file.faults.push({ kind: 'empty', ...groupLine });
  return file;
}

const percentEncoded = (text: string) =>
  [...new TextEncoder().encode(text)].map((byte) => `%${byte.toString(16).toUpperCase().padStart(2, '0')}`).join('');

/** Percent-encodes what a URL never holds unescaped, so that rule and address are compared in one form. */
export function normalizePattern(pattern: string): string {
  return normalizeEscapes(pattern.replace(/[^\x21-\x7e]+/gu, (text) => percentEncoded(text)));
}
