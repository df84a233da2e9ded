/** Rules of a robots.txt without which every address would be judged the same. */
import type { RobotsRule } from '../facts';
import type { Message } from '../messages';
import { comparedPattern, rulesFor } from './match';
import { normalizePattern } from './parse';
import type { RobotsFile } from './parse';

interface Compared {
  rule: RobotsRule;
  allows: boolean;
  pattern: string;
  prefix: string;
  /** By which it wins or loses. */
  length: number;
}

const isPlain = ({ pattern, prefix }: Compared) => pattern === prefix;
/** Whether some address may match both; said also where that is not certain. */
const mayOverlap = (a: Compared, b: Compared) => a.prefix.startsWith(b.prefix) || b.prefix.startsWith(a.prefix);

/** Rules that are not empty, by their patterns. */
type ByPattern = ReadonlyMap<string, readonly Compared[]>;

/** The plain rules that hold for whatever begins as a rule does, in the order of the file. */
function plainBefore({ prefix }: Compared, byPattern: ByPattern): Compared[] {
  const found: Compared[] = [];
  for (let end = 1; end <= prefix.length; end++) found.push(...(byPattern.get(prefix.slice(0, end)) ?? []));
  return found.filter(isPlain).sort((a, b) => a.rule.line - b.rule.line);
}

/** Why a rule decides nothing that the other rules of its crawler do not; null when it may decide something. */
function reasonOf(one: Compared, all: readonly Compared[], byPattern: ByPattern): Message | null {
  if (one.pattern === '') return one.allows || byPattern.size > 0 ? { code: 'rule_empty' } : null;
  const same = byPattern
    .get(one.pattern)!
    .find(({ allows, rule }) => (allows === one.allows ? rule.line < one.rule.line : allows));
  if (same && same.allows !== one.allows) return { code: 'rule_outweighed', line: same.rule.line };
  if (same) return { code: 'rule_repeated', line: same.rule.line };
  const isAgainst = (other: Compared) => other.pattern !== '' && other.allows !== one.allows && mayOverlap(one, other);
  if (one.allows && !all.some((other) => other.length <= one.length && isAgainst(other)))
    return { code: 'rule_opens_nothing' };
  const covering = plainBefore(one, byPattern).find(
    (other) =>
      other !== one &&
      other.allows === one.allows &&
      other.length <= one.length &&
      !all.some(
        (against) =>
          (against.length > other.length || (against.length === other.length && against.allows)) && isAgainst(against),
      ),
  );
  return covering ? { code: 'rule_covered', line: covering.rule.line } : null;
}

/** Comparing rules with each other takes long in files of very many. */
const MAX_RULES = 2000;

/**
 * Finds rules that another makes useless, or that open what nothing closes. A rule of a group for several crawlers is
 * useless when it is for each of them.
 */
export function uselessRules(file: RobotsFile): { line: number; message: Message }[] {
  const reasons = new Map<number, Message | null>();
  for (const agent of new Set(file.groups.flatMap(({ agents }) => agents))) {
    const all = rulesFor(file, agent).map((rule) => ({
      rule,
      allows: rule.directive === 'allow',
      length: normalizePattern(rule.path).length,
      ...comparedPattern(rule.path),
    }));
    if (all.length > MAX_RULES) continue;
    const byPattern = new Map<string, Compared[]>();
    for (const one of all)
      if (one.pattern !== '') byPattern.set(one.pattern, [...(byPattern.get(one.pattern) ?? []), one]);
    for (const one of all) {
      const reason = reasonOf(one, all, byPattern);
      const before = reasons.get(one.rule.line);
      reasons.set(one.rule.line, before === null ? null : reason);
    }
  }
  return [...reasons].flatMap(([line, message]) => (message ? [{ line, message }] : []));
}
