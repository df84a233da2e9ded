/** Finds the shortest patterns that close some addresses and, where that can be, nothing else. */
import { matchedPart, pathTest } from './match';
import { parseRobots } from './parse';

export interface ComposedRule {
  /** As it stands behind `Disallow: `. */
  path: string;
  /** How many of the picked addresses it closes. */
  closes: number;
  /** Other addresses that it closes too. */
  alsoCloses: string[];
}

/** Patterns that are tried for a group of addresses. */
const MAX_TRIED = 400;

function commonPrefix(texts: readonly string[]): string {
  let prefix = texts[0];
  for (const text of texts) while (!text.startsWith(prefix)) prefix = prefix.slice(0, -1);
  return prefix;
}

function commonSuffix(texts: readonly string[]): string {
  let suffix = texts[0];
  for (const text of texts) while (!text.endsWith(suffix)) suffix = suffix.slice(1);
  return suffix;
}

/**
 * Pieces that stand in every text: segments, endings, and names of parameters with and without the mark before them.
 */
function commonPieces(texts: readonly string[]): string[] {
  const piecesOf = (text: string) =>
    new Set((text.match(/[?&][^=&]+=|[./][^./?&]+/g) ?? []).flatMap((piece) => [piece, piece.replace(/^[?&]/, '')]));
  const [first, ...rest] = texts.map(piecesOf);
  return [...first].filter((piece) => rest.every((pieces) => pieces.has(piece)));
}

/** Where a prefix may be cut so that it reads well: behind a slash or before a mark, and at its end. */
function cuts(prefix: string): string[] {
  const ends = new Set([prefix.length]);
  for (let i = 1; i < prefix.length; i++) if (/[/?&=._-]/.test(prefix[i - 1])) ends.add(i);
  return [...ends].sort((a, b) => a - b).map((end) => prefix.slice(0, end));
}

/** Patterns that match all of some paths, the shortest first. */
function candidates(paths: readonly string[]): string[] {
  const prefix = commonPrefix(paths);
  const suffix = commonSuffix(paths);
  const heads = cuts(prefix);
  const found = [...heads];
  for (const piece of commonPieces(paths).filter((piece) => !prefix.includes(piece)))
    for (const head of heads) found.push(`${head}*${piece}`);
  if (/[./]/.test(suffix[0] ?? '')) for (const head of heads) found.push(`${head}*${suffix}`, `${head}*${suffix}$`);
  if (paths.every((path) => path === paths[0])) found.push(`${paths[0]}$`);
  const matchesAll = (pattern: string) => paths.every(pathTest(pattern));
  return [...new Set(found)]
    .sort((a, b) => a.length - b.length)
    .slice(0, MAX_TRIED)
    .filter(matchesAll);
}

/**
 * Composes rules that close the picked addresses of one host: one rule where a pattern closes all of them and nothing
 * else, else a rule for each of the folders that they are in, as deep as it takes.
 * @param others the addresses of the host that are to stay open
 */
export function composeRules(picked: readonly string[], others: readonly string[]): ComposedRule[] {
  if (picked.length === 0) return [];
  const rest = others.map((address) => ({ address, path: matchedPart(address) }));
  const compose = (paths: readonly string[], level: number): ComposedRule[] => {
    const hit = (pattern: string) => rest.filter(({ path }) => pathTest(pattern)(path)).map(({ address }) => address);
    const tried = candidates(paths);
    const clean = tried.find((pattern) => !rest.some(({ path }) => pathTest(pattern)(path)));
    if (clean !== undefined) return [{ path: clean, closes: paths.length, alsoCloses: [] }];
    const byFolder = new Map<string, string[]>();
    for (const path of paths) {
      const folder = path
        .split(/(?<=[/?&])/)
        .slice(0, level + 1)
        .join('');
      byFolder.set(folder, [...(byFolder.get(folder) ?? []), path]);
    }
    const isDeepest = paths.every((path) => path.split(/(?<=[/?&])/).length <= level + 1);
    if (!isDeepest) return [...byFolder.values()].flatMap((part) => compose(part, level + 1));
    if (paths.length > 1) return paths.flatMap((path) => compose([path], level));
    const narrowest = tried.map((path) => ({ path, closes: 1, alsoCloses: hit(path) }));
    return [narrowest.reduce((a, b) => (b.alsoCloses.length <= a.alsoCloses.length ? b : a))];
  };
  return compose([...new Set(picked.map(matchedPart))], 1);
}

/**
 * Rules that close what was picked, all that differs from it only in numbers too, or all that is in the picked folders.
 */
export interface RuleChoice {
  of: 'picked' | 'kind' | 'folders';
  /** How many addresses these are. */
  addresses: number;
  rules: ComposedRule[];
}

/** An address with 0 for every number in it: months of a calendar and pages of a list have the same. */
const kindOf = (address: string) => matchedPart(address).replace(/\d+/g, '0');

/** Whether an address differs only in numbers from several of those that were picked. */
function ofKind(picked: readonly string[]): (address: string) => boolean {
  const kinds = new Map<string, number>();
  for (const address of picked) kinds.set(kindOf(address), (kinds.get(kindOf(address)) ?? 0) + 1);
  return (address) => (kinds.get(kindOf(address)) ?? 0) > 1;
}

/** Whether an address is in one of the picked folders, where nothing but folders was picked. */
function inFolders(picked: readonly string[]): (address: string) => boolean {
  if (!picked.every((address) => address.endsWith('/'))) return () => false;
  return (address) => picked.some((folder) => address.startsWith(folder));
}

/**
 * The ways to close the picked addresses of one host, that with fewest rules first: these alone and, where there are
 * others, with all that are of their kind or in their folders.
 * @param others as of {@link composeRules}
 */
export function composeChoices(picked: readonly string[], others: readonly string[]): RuleChoice[] {
  if (picked.length === 0) return [];
  const wider = Object.entries({ kind: ofKind(picked), folders: inFolders(picked) }).flatMap(([of, isKin]) => {
    const all = [...picked, ...others.filter(isKin)];
    if (all.length === picked.length) return [];
    const rules = composeRules(
      all,
      others.filter((address) => !isKin(address)),
    );
    return [{ of: of as 'kind' | 'folders', addresses: all.length, rules }];
  });
  const own: RuleChoice = { of: 'picked', addresses: picked.length, rules: composeRules(picked, others) };
  return [own, ...wider].sort((a, b) => a.rules.length - b.rules.length);
}

/**
 * Adds rules that close paths for a crawler to a robots.txt: to the first group that holds for it, or to one for every
 * crawler, which is made where there is none.
 * @param token product token of the crawler
 */
export function withDisallowed(text: string, token: string, paths: readonly string[]): string {
  const rules = paths.map((path) => `Disallow: ${path}`);
  const { groups } = parseRobots(text);
  const named = groups.find(({ agents }) => agents.includes(token.toLowerCase()));
  const group = named ?? groups.find(({ agents }) => agents.includes('*'));
  const lines = text.split(/\r\n|\r|\n/);
  if (group) {
    // Behind all lines that name its agents, so that they stay one group.
    lines.splice(Math.max(...group.agentLines), 0, ...rules);
    return lines.join('\n');
  }
  return `${text.trimEnd()}${text.trim() ? '\n\n' : ''}User-agent: *\n${rules.join('\n')}\n`;
}
