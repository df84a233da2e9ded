/** How a robots.txt judges the known addresses of its host. */
import { parseRobots, rankedRules, ruleFinder } from '../robots';
import { addressAt } from '../snapshot';
import type { Snapshot } from '../snapshot';
import { originOf } from '../url';

/** The pages of a snapshot that a robots.txt holds for. */
export function pagesOfOrigin(snapshot: Snapshot, origin: string): Uint32Array {
  const pages: number[] = [];
  for (let page = 0; page < snapshot.count; page++)
    if (originOf(addressAt(snapshot, page)) === origin) pages.push(page);
  return Uint32Array.from(pages);
}

/**
 * For each of some addresses the line of the rule that decides about it: below zero where it closes, above where it
 * opens, 0 where none matches.
 * @param text the robots.txt; null where there is none, which opens everything
 */
export function decidingLines(addresses: readonly string[], text: string | null, token: string): Int32Array {
  const rules = text === null ? [] : rankedRules(parseRobots(text), token);
  const find = ruleFinder(rules);
  const lines = rules.map(({ allows, rule }) => (allows ? rule.line : -rule.line));
  return Int32Array.from(addresses, (address) => lines[find(address)] ?? 0);
}

/** What an address became: positions in the list of addresses. */
export interface JudgedChange {
  closed: number[];
  opened: number[];
  /** How many were closed before and still are. */
  still: number;
}

/** Compares how two files judge the same addresses. */
export function compareJudged(before: Int32Array, after: Int32Array): JudgedChange {
  const change: JudgedChange = { closed: [], opened: [], still: 0 };
  for (let i = 0; i < before.length; i++) {
    if (before[i] >= 0 && after[i] < 0) change.closed.push(i);
    else if (before[i] < 0 && after[i] >= 0) change.opened.push(i);
    else if (before[i] < 0) change.still++;
  }
  return change;
}
