/** The addresses that the links of a document lead to. */
import type { Link, LinkElement, LinkKind, Placement } from '../links';
import type { Identified } from '../url';
import { clip, fold, linesAndColumns } from './bytes';

/** Gives addresses their identity, with the parameter rules of the site. */
export type Identify = (href: string, base?: string) => Identified | null;

/** A link as it stands in a document. */
export interface FoundLink {
  position: number;
  kind: LinkKind;
  element: LinkElement;
  href: string;
  anchor: string;
  rel: string;
  placement: Placement;
  above: string;
  bareImage: boolean;
  beside: boolean;
}

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

/** The links of a page, in document order, with the addresses that they lead to, and whether some were left out. */
export function resolveLinks(found: readonly FoundLink[], binary: string, base: string, identify: Identify) {
  const places = linesAndColumns(
    binary,
    found.map(({ position }) => position),
  );
  const links: Link[] = [];
  let room = MAX_TARGETS_LENGTH;
  // Written out member by member: on pages of many links, spreading objects costs more than parsing them.
  found.forEach(({ href, kind, element, anchor, rel, placement, above, bareImage, beside }, i) => {
    const { line, column } = places[i];
    if (room < 0) return;
    const to = identify(href, base);
    if (to) {
      const [target, fragment] = [to.address, clip(to.fragment)];
      if ((room -= target.length) < 0) return;
      const relative = kind === 'canonical' && isRelative(href);
      links.push({
        kind,
        element,
        target,
        anchor,
        rel,
        placement,
        above,
        fragment,
        line,
        column,
        bareImage,
        relative,
        beside,
      });
      return;
    }
    const target = kind === 'click' ? malformedTarget(href) : null;
    if (target)
      links.push({ kind, element, target, anchor, rel, placement, above, fragment: '', line, column, malformed: true });
  });
  return { links, truncated: room < 0 };
}
