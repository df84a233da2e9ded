import { Parser } from 'htmlparser2';
import { identify } from '../url';
import type { Landmark, Link, LinkElement, LinkKind } from '../links';
import { fold, linesAndColumns, readMarkup, resolveAttributeReferences, resolveReferences } from './bytes';
import type { Directive } from './directives';
import { readRefresh } from './refresh';

/** What one HTML document says about itself and where it links. */
export interface HtmlFacts {
  /** Unknown (null) when the document has no such element. */
  title: string | null;
  h1: string | null;
  description: string | null;
  language: string | null;
  /** Addresses named by `<link rel=canonical>`, in document order. */
  canonicals: string[];
  directives: Directive[];
  /** Where a meta refresh leads, when that is another address. */
  refresh: string | null;
  links: Link[];
}

const MAX_TEXT = 1000;
/** Elements of a path; those further in are not named. */
const MAX_DEPTH = 40;
const landmarkOfElement: Record<string, Landmark> = {
  header: 'header',
  nav: 'nav',
  main: 'main',
  aside: 'aside',
  footer: 'footer',
};
const landmarkOfRole: Record<string, Landmark> = {
  banner: 'header',
  navigation: 'nav',
  main: 'main',
  complementary: 'aside',
  contentinfo: 'footer',
};
/** What stands in these is not content of the page. */
const inert = new Set(['script', 'style', 'template']);

/** An element that is open, with what a link inside it needs to know. */
interface Frame {
  name: string;
  parent: Frame | null;
  depth: number;
  className: string;
  landmark: Landmark;
  /** Filled when a link first asks for it. */
  path: string | null;
}

type Raw = Record<string, string>;
interface FoundLink {
  position: number;
  kind: LinkKind;
  element: LinkElement;
  href: string;
  anchor: string;
  rel: string;
  landmark: Landmark;
  path: string;
}

function pathOf(frame: Frame | null): string {
  if (!frame || frame.name === 'html') return '';
  if (frame.path !== null) return frame.path;
  // Nesting without bound must not make paths, or calls, without bound.
  let named = frame;
  while (named.depth > MAX_DEPTH) named = named.parent!;
  if (named !== frame) return (frame.path = pathOf(named));
  const above = pathOf(frame.parent);
  const classes = frame.className.trim().split(/\s+/).filter(Boolean).slice(0, 3);
  const step = [frame.name, ...classes].join('.').slice(0, 100);
  return (frame.path = above ? `${above}>${step}` : step);
}

/**
 * Reads an HTML document in one pass over its bytes.
 * @param bytes the body as received, decompressed
 * @param address where it was found, in normal form; `<base href>` is honoured
 * @param token product token whose agent-named metas count
 * @param httpCharset charset parameter of the Content-Type header
 */
export function readHtml(bytes: Uint8Array, address: string, token: string, httpCharset?: string): HtmlFacts {
  const { binary, decode } = readMarkup(bytes, httpCharset);
  const text = (raw: string) => fold(resolveReferences(decode(raw))).slice(0, MAX_TEXT);
  const attribute = (attribs: Raw, name: string) =>
    attribs[name] === undefined ? undefined : resolveAttributeReferences(decode(attribs[name]));

  const facts: HtmlFacts = {
    title: null,
    h1: null,
    description: null,
    language: null,
    canonicals: [],
    directives: [],
    refresh: null,
    links: [],
  };
  const found: FoundLink[] = [];
  let base: string | null = null;
  let refresh: string | null = null;
  let frame: Frame | null = null;
  let inertDepth = 0;
  let svgDepth = 0;
  /** The element whose text is being gathered for a fact, with the depth-independent raw text so far. */
  let gathering: { name: 'title' | 'h1'; raw: string } | null = null;
  let click: { link: FoundLink; raw: string; alts: string[]; label?: string; title?: string } | null = null;

  const add = (kind: LinkKind, element: LinkElement, href: string, attribs: Raw, position: number): FoundLink => {
    const link: FoundLink = {
      position,
      kind,
      element,
      href,
      anchor: '',
      rel: attribs.rel ? fold(attribute(attribs, 'rel')!.toLowerCase()).slice(0, 200) : '',
      landmark: frame?.landmark ?? '',
      path: pathOf(frame),
    };
    found.push(link);
    return link;
  };

  const endClick = () => {
    if (!click) return;
    const { link, raw, alts, label, title } = click;
    link.anchor = text(raw) || (fold(alts.join(' ')) || fold(label ?? '') || fold(title ?? '')).slice(0, MAX_TEXT);
    click = null;
  };

  const readMeta = (attribs: Raw, position: number) => {
    const content = attribute(attribs, 'content') ?? '';
    const name = (attribute(attribs, 'name') ?? '').trim().toLowerCase();
    if (name === 'description') facts.description ??= fold(content).slice(0, MAX_TEXT);
    else if (name === 'robots' || name === token.toLowerCase())
      facts.directives.push({ agent: name === 'robots' ? '' : name, content });
    if ((attribute(attribs, 'http-equiv') ?? '').trim().toLowerCase() === 'refresh' && refresh === null) {
      refresh = readRefresh(content);
      if (refresh !== null) add('refresh', 'meta', refresh, attribs, position);
    }
  };

  const readDeclaration = (attribs: Raw, position: number) => {
    const href = attribute(attribs, 'href');
    if (!href) return;
    const rel = (attribute(attribs, 'rel') ?? '').toLowerCase().split(/\s+/);
    if (rel.includes('canonical')) add('canonical', 'link', href, attribs, position);
    else if (rel.includes('alternate') && attribs.hreflang !== undefined) {
      add('hreflang', 'link', href, attribs, position).anchor = fold(attribute(attribs, 'hreflang') ?? '');
    }
  };

  const parser = new Parser(
    {
      onopentag(name, attribs) {
        const landmark: Landmark =
          landmarkOfRole[attribs.role?.trim().toLowerCase()] ?? landmarkOfElement[name] ?? frame?.landmark ?? '';
        const position = parser.startIndex;
        if (inertDepth === 0) {
          if (name === 'a' || name === 'area') {
            if (name === 'a') endClick();
            const href = attribute(attribs, 'href');
            if (href !== undefined) {
              const link = add('click', name, href, attribs, position);
              const label = attribute(attribs, 'aria-label');
              const title = attribute(attribs, 'title');
              if (name === 'area')
                link.anchor = fold(attribute(attribs, 'alt') || label || title || '').slice(0, MAX_TEXT);
              else click = { link, raw: '', alts: [], label, title };
            }
          } else if (name === 'img' && click) click.alts.push(attribute(attribs, 'alt') ?? '');
          else if (name === 'meta') readMeta(attribs, position);
          else if (name === 'link') readDeclaration(attribs, position);
          else if (name === 'base') base ??= attribute(attribs, 'href') ?? null;
          else if (name === 'html') facts.language ??= fold(attribute(attribs, 'lang') ?? '') || null;
          else if (name === 'title' && svgDepth === 0 && facts.title === null) gathering ??= { name, raw: '' };
          else if (name === 'h1' && facts.h1 === null) gathering ??= { name, raw: '' };
        }
        if (inert.has(name)) inertDepth++;
        if (name === 'svg') svgDepth++;
        const className = attribs.class ? decode(attribs.class) : '';
        frame = { name, parent: frame, depth: (frame?.depth ?? 0) + 1, className, landmark, path: null };
      },
      ontext(raw) {
        if (inertDepth > 0) return;
        if (gathering) gathering.raw += raw;
        if (click) click.raw += raw;
      },
      onclosetag(name) {
        frame = frame?.parent ?? null;
        if (inert.has(name)) inertDepth--;
        if (name === 'svg') svgDepth--;
        if (name === 'a') endClick();
        if (gathering?.name === name) {
          facts[gathering.name] = text(gathering.raw);
          gathering = null;
        }
      },
    },
    { decodeEntities: false },
  );
  parser.write(binary);
  parser.end();
  endClick();
  if (gathering !== null)
    facts[(gathering as { name: 'title' | 'h1' }).name] = text((gathering as { raw: string }).raw);

  const baseAddress = (base !== null && identify(base, address)?.address) || address;
  const places = linesAndColumns(
    binary,
    found.map(({ position }) => position),
  );
  // Written out member by member: on pages of many links, spreading objects costs more than parsing them.
  found.forEach(({ href, kind, element, anchor, rel, landmark, path }, i) => {
    const target = identify(href, baseAddress)?.address;
    if (!target) return;
    const { line, column } = places[i];
    facts.links.push({ kind, element, target, anchor, rel, landmark, path, line, column });
  });
  facts.canonicals = facts.links.filter(({ kind }) => kind === 'canonical').map(({ target }) => target);
  facts.refresh = facts.links.find(({ kind, target }) => kind === 'refresh' && target !== address)?.target ?? null;
  return facts;
}
