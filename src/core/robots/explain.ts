/** Why an address is open or closed to a crawler, step by step (RFC 9309 §2.2). */
import type { RobotsRule } from '../facts';
import { matchedPart, pathTest, rankedRules, ROBOTS_PATH } from './match';
import type { RobotsFile } from './parse';

export interface RobotsExplanation {
  allowed: boolean;
  /** The group that holds: the product token, `*`, or null when no group does. */
  group: string | null;
  /** Lines that name the group. */
  groupLines: number[];
  /** How many rules the group has. */
  rules: number;
  /** The rules that match, the one that wins first, with the length of each pattern in octets. */
  matching: { rule: RobotsRule; length: number }[];
  /** `robots_file`: robots.txt itself is always open; `longest`, `tie`: why the first of several wins. */
  why: 'robots_file' | 'no_group' | 'no_rule' | 'only' | 'longest' | 'tie';
}

/** @param token product token of the crawler, compared without regard to case */
export function explainRobots(file: RobotsFile, token: string, address: string): RobotsExplanation {
  const linesOf = (name: string) =>
    file.groups.flatMap(({ agents, agentLines }) => agentLines.filter((_, i) => agents[i] === name));
  const named = linesOf(token.toLowerCase());
  const group = named.length ? token.toLowerCase() : linesOf('*').length ? '*' : null;
  const ranked = rankedRules(file, token);
  const target = matchedPart(address);
  const matching = ranked
    .filter(({ pattern }) => pathTest(pattern)(target))
    .map(({ rule, length }) => ({ rule, length }));
  const base = { group, groupLines: group === null ? [] : linesOf(group), rules: ranked.length, matching };
  if (target === ROBOTS_PATH) return { ...base, allowed: true, why: 'robots_file' };
  if (group === null) return { ...base, allowed: true, why: 'no_group' };
  const [first, second] = matching;
  if (!first) return { ...base, allowed: true, why: 'no_rule' };
  const allowed = first.rule.directive === 'allow';
  if (!second) return { ...base, allowed, why: 'only' };
  const isTie = second.length === first.length && second.rule.directive !== first.rule.directive;
  return { ...base, allowed, why: isTie ? 'tie' : 'longest' };
}
