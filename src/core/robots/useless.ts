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

/** Why a rule decides nothing that the other rules of its crawler do not; null when it may decide something. */
function reasonOf(one: Compared, all: readonly Compared[]): Message | null {
  const others = all.filter((other) => other !== one && other.pattern !== '');
  if (one.pattern === '') return one.allows || others.length > 0 ? { code: 'rule_empty' } : null;
  const same = others.find(({ pattern, allows, rule }) => {
    if (pattern !== one.pattern) return false;
    return allows === one.allows ? rule.line < one.rule.line : allows;
  });
  if (same && same.allows !== one.allows) return { code: 'rule_outweighed', line: same.rule.line };
  if (same) return { code: 'rule_repeated', line: same.rule.line };
  const against = others.filter(({ allows }) => allows !== one.allows).filter((other) => mayOverlap(one, other));
  if (one.allows && !against.some(({ length }) => length <= one.length)) return { code: 'rule_opens_nothing' };
  const covering = others.find(
    (other) =>
      other.allows === one.allows &&
      isPlain(other) &&
      one.prefix.startsWith(other.pattern) &&
      other.length <= one.length &&
      !against.some(({ length, allows }) => length > other.length || (length === other.length && allows)),
  );
  return covering ? { code: 'rule_covered', line: covering.rule.line } : null;
}

/** Comparing every rule with every other takes long in files of very many rules. */
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
    for (const one of all) {
      const reason = reasonOf(one, all);
      const before = reasons.get(one.rule.line);
      reasons.set(one.rule.line, before === null ? null : reason);
    }
  }
  return [...reasons].flatMap(([line, message]) => (message ? [{ line, message }] : []));
}
