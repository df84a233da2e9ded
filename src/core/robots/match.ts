import type { RobotsRule } from '../facts';
import { addressParts } from '../url';
import { normalizePattern } from './parse';
import type { RobotsFile } from './parse';

export interface RobotsAnswer {
  allowed: boolean;
  /** The rule that decided; none when no rule matches. */
  rule?: RobotsRule;
}

export type RobotsMatcher = (address: string) => RobotsAnswer;

/** The rules that hold for a product token: of all groups that name it, else of all for `*` (RFC 9309 §2.2.1). */
function rulesFor(file: RobotsFile, token: string): RobotsRule[] {
  const of = (group: string) => file.groups.filter(({ agents }) => agents.includes(group));
  const named = of(token.toLowerCase());
  const group = named.length ? token.toLowerCase() : '*';
  return (named.length ? named : of('*')).flatMap(({ rules }) => rules.map((rule) => ({ ...rule, group })));
}

/**
 * Seconds that a crawler is asked to leave between two requests: the most that is asked of it by name or, when no group
 * names it, of everyone; null when nothing is asked.
 */
export function crawlDelayFor(file: RobotsFile, token: string): number | null {
  const named = file.groups.some(({ agents }) => agents.includes(token.toLowerCase()));
  const name = named ? token.toLowerCase() : '*';
  const delays = file.delays.filter(({ agents }) => agents.includes(name)).map(({ seconds }) => seconds);
  return delays.length ? Math.max(...delays) : null;
}

/** Matches `*` and a closing `$`, never backing up further than the last `*`. */
export function matchesPattern(pattern: string, path: string): boolean {
  const anchored = pattern.endsWith('$');
  const parts = (anchored ? pattern.slice(0, -1) : pattern).split('*');
  let at = 0;
  for (let i = 0; i < parts.length; i++) {
    const part = parts[i];
    if (i === 0) {
      if (!path.startsWith(part)) return false;
      at = part.length;
    } else if (anchored && i === parts.length - 1) {
      return path.length - part.length >= at && path.endsWith(part);
    } else {
      const found = path.indexOf(part, at);
      if (found < 0) return false;
      at = found + part.length;
    }
  }
  return !anchored || at === path.length;
}

/**
 * Makes the matcher of RFC 9309 §2.2.2 for one crawler: the longest matching pattern wins, allow wins a tie, an empty
 * pattern matches nothing, `/robots.txt` itself is always allowed.
 * @param token the crawler's product token, compared without regard to case
 */
export function robotsMatcher(file: RobotsFile, token: string): RobotsMatcher {
  const rules = rulesFor(file, token)
    .filter(({ path }) => path !== '')
    .map((rule) => ({ rule, pattern: normalizePattern(rule.path), allows: rule.directive === 'allow' }))
    .sort((a, b) => b.pattern.length - a.pattern.length || Number(b.allows) - Number(a.allows))
    .map((one) => ({ ...one, pattern: one.pattern.replace(/\$(?!$)/g, '%24') }));
  return (address) => {
    const { path, query } = addressParts(address);
    if (path === '/robots.txt' && !query) return { allowed: true };
    // A literal `*` or `$` of an address can be named in a rule only by its escape.
    const target = (path + query).replaceAll('*', '%2A').replaceAll('$', '%24');
    const found = rules.find(({ pattern }) => matchesPattern(pattern, target));
    return found ? { allowed: found.allows, rule: found.rule } : { allowed: true };
  };
}
