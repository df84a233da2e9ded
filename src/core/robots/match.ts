import type { RobotsRule } from '../facts';
import { addressParts } from '../url';
import { compilePatterns } from './compile';
import { normalizePattern } from './parse';
import type { RobotsFile } from './parse';

export interface RobotsAnswer {
  allowed: boolean;
  /** The rule that decided; none when no rule matches. */
  rule?: RobotsRule;
}

export type RobotsMatcher = (address: string) => RobotsAnswer;

/** The rules that hold for a product token: of all groups that name it, else of all for `*` (RFC 9309 §2.2.1). */
export function rulesFor(file: RobotsFile, token: string): RobotsRule[] {
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
  return file.delays.get(named ? token.toLowerCase() : '*') ?? null;
}

/** Makes the test of a pattern with `*` and a closing `$`, which never backs up further than the last `*`. */
export function pathTest(pattern: string): (path: string) => boolean {
  const anchored = pattern.endsWith('$');
  const [prefix, ...parts] = (anchored ? pattern.slice(0, -1) : pattern).split('*');
  const last = anchored ? parts.pop() : undefined;
  return (path) => {
    if (!path.startsWith(prefix)) return false;
    let at = prefix.length;
    for (const part of parts) {
      const found = path.indexOf(part, at);
      if (found < 0) return false;
      at = found + part.length;
    }
    if (last !== undefined) return path.length - last.length >= at && path.endsWith(last);
    return !anchored || at === path.length;
  };
}

/** A pattern in the form in which it is compared, and what stands before its first special character. */
interface Pattern {
  pattern: string;
  prefix: string;
}

/** A rule in the order in which rules win. */
export interface RankedRule extends Pattern {
  allows: boolean;
  rule: RobotsRule;
  length: number;
}

/** Brings the pattern of a rule to the form in which it is compared: a `$` that does not end it is a character. */
export function comparedPattern(path: string): Pattern {
  const pattern = normalizePattern(path).replace(/\$(?!$)/g, '%24');
  return { pattern, prefix: /^[^*$]*/.exec(pattern)![0] };
}

/** The rules for a product token in the order in which they win: the longest pattern first, allow before disallow. */
export function rankedRules(file: RobotsFile, token: string): RankedRule[] {
  return rulesFor(file, token)
    .filter(({ path }) => path !== '')
    .map((rule) => ({ rule, length: normalizePattern(rule.path).length, allows: rule.directive === 'allow' }))
    .sort((a, b) => b.length - a.length || Number(b.allows) - Number(a.allows))
    .map((one) => ({ ...one, ...comparedPattern(one.rule.path) }));
}

/**
 * Runs of any characters that are compiled at most: in a file of more of them, each of their patterns is tried by
 * itself.
 */
const MAX_STARS = 5000;

/** The address that is always open. */
export const ROBOTS_PATH = '/robots.txt';

/** What patterns are compared with: a literal `*` or `$` of an address can be named in a rule only by its escape. */
export function matchedPart(address: string): string {
  const { path, query } = addressParts(address);
  return (path + query).replaceAll('*', '%2A').replaceAll('$', '%24');
}

/**
 * Finds the rule that decides about an address.
 * @param ranked rules in the order in which they win
 * @returns its place among them; −1 where none matches, and for `/robots.txt` itself, which is always open
 */
export function ruleFinder(ranked: readonly RankedRule[]): (address: string) => number {
  const isWild = ({ pattern }: Pattern) => pattern.includes('*');
  const stars = ranked.filter(isWild).reduce((sum, { pattern }) => sum + pattern.split('*').length - 1, 0);
  const places = ranked.map((_, place) => place);
  const apart = stars > MAX_STARS ? places.filter((place) => isWild(ranked[place])) : [];
  const compiled = apart.length ? places.filter((place) => !isWild(ranked[place])) : places;
  const find = compilePatterns(compiled.map((place) => ranked[place].pattern));
  const tests = ranked.map(({ pattern }) => pathTest(pattern));
  return (address) => {
    const slash = address.indexOf('/', address.indexOf('://') + 3);
    // An address in normal form has a path.
    const from = slash < 0 ? address.length : slash;
    if (address.length - from === ROBOTS_PATH.length && address.endsWith(ROBOTS_PATH)) return -1;
    const at = find(address, from);
    // Rule by rule takes time by the length of the rules and of the address, whatever they are.
    if (at === null) {
      const target = matchedPart(address);
      return tests.findIndex((matches) => matches(target));
    }
    // A look at place −1 of an array takes many times as long as this.
    const found = at < 0 ? -1 : compiled[at];
    if (apart.length === 0) return found;
    const target = matchedPart(address);
    const wild = apart.find((place) => (found >= 0 && place > found) || tests[place](target)) ?? -1;
    return found < 0 ? wild : wild < 0 ? found : Math.min(found, wild);
  };
}

/**
 * Makes the matcher of RFC 9309 §2.2.2 for one crawler: the longest matching pattern wins, allow wins a tie, an empty
 * pattern matches nothing, `/robots.txt` itself is always allowed.
 * @param token the crawler's product token, compared without regard to case
 */
export function robotsMatcher(file: RobotsFile, token: string): RobotsMatcher {
  const ranked = rankedRules(file, token);
  const find = ruleFinder(ranked);
  const answers = ranked.map(({ allows, rule }): RobotsAnswer => ({ allowed: allows, rule }));
  const open: RobotsAnswer = { allowed: true };
  return (address) => {
    const place = find(address);
    return place < 0 ? open : answers[place];
  };
}
