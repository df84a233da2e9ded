/** The addresses that the links of a document lead to. */
import type { Link } from '../links';
import type { Identified } from '../url';
import { clip, fold, linesAndColumns } from './bytes';

/** Gives addresses their identity, with the parameter rules of the site. */
export type Identify = (href: string, base?: string) => Identified | null;

/** Characters of all targets of a page: hundreds of thousands of links may share a long beginning. */
const MAX_TARGETS_LENGTH = 16_000_000;

/** A scheme that is written; '' for a relative address. Control characters are passed over, as URL parsers do. */
const schemeOf = (href: string) =>
  // eslint-disable-next-line no-control-regex -- URL parsers strip them, so they must not hide a scheme
  /^[\x00-\x20]*([a-z][a-z0-9+.-]*):/i.exec(href.slice(0, 100).replace(/[\t\r\n]/g, ''))?.[1].toLowerCase() ?? '';

const isRelative = (href: string) => schemeOf(href) === '' && !/^\s*[\\/]{2}/.test(href);

/** A target that is meant for the web and cannot be parsed, as written; null for mail, telephone, script and data. */
function malformedTarget(href: string): string | null {
  const scheme = schemeOf(href);
  return scheme === '' || scheme === 'http' || scheme === 'https' ? clip(fold(href)) : null;
}

/**
 * Turns links as they stand in a document into what they are: in place, since pages have tens of thousands.
 * @param found in document order, their targets as written; those that lead nowhere on the web are left out
 * @param positions of theirs, in the same order
 */
export function resolveLinks(
  found: readonly Link[],
  positions: readonly number[],
  binary: string,
  base: string,
  identify: Identify,
): { links: Link[]; truncated: boolean } {
  const { lines, columns } = linesAndColumns(binary, positions);
  const links: Link[] = [];
  let room = MAX_TARGETS_LENGTH;
  for (let i = 0; i < found.length; i++) {
    const link = found[i];
    const { target: href, kind } = link;
    const to = identify(href, base);
    if (to) {
      if ((room -= to.address.length) < 0) break;
      link.target = to.address;
      link.fragment = clip(to.fragment);
      link.relative = kind === 'canonical' && isRelative(href);
    } else {
      const target = kind === 'click' ? malformedTarget(href) : null;
      if (!target) continue;
      link.target = target;
      link.malformed = true;
    }
    link.line = lines[i];
    link.column = columns[i];
    links.push(link);
  }
  return { links, truncated: room < 0 };
}
