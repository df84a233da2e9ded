import { identify as identifyPlainly } from '../url';
import type { Identified } from '../url';
import type { Placement, Link, LinkElement, LinkKind } from '../links';
import { breadcrumbOfJson } from './breadcrumb';
import type { Crumb } from './breadcrumb';
import { clip, fold, linesAndColumns, readMarkup, resolveAttributeReferences, resolveReferences } from './bytes';
import { readWords } from './content';
import { isRobotsContent } from './directives';
import type { Directive } from './directives';
import { elementSet, elementTable } from './elements';
import { readRefresh } from './refresh';
import { embeddings, relationOf } from './resources';
import { scanMarkup } from './scan';
import type { Tag } from './scan';

/** What one HTML document says about itself and where it links. */
export interface HtmlFacts {
  /** Unknown (null) when the document has no such element. */
  title: string | null;
  description: string | null;
  language: string | null;
  /** Texts of all `h1`, in document order. */
  h1: string[];
  /** Addresses named by `<link rel=canonical>`, in document order. */
  canonicals: string[];
  /** Rules for crawlers, also those for other agents. */
  directives: Directive[];
  /** Where a meta refresh leads, when that is another address. */
  refresh: string | null;
  /** Where the page says it belongs: JSON-LD, else what is marked as breadcrumb. */
  breadcrumb: Crumb[] | null;
  /** What fragments can name: ids, and names of anchors. */
  ids: string[];
  /** Words of the main content: of `main` or, without it, of what stands in no landmark. */
  wordCount: number;
  /** See `readWords`. */
  fingerprint: [number, number] | null;
  links: Link[];
}

export interface ReadOptions {
  /** Charset parameter of the Content-Type header. */
  charset?: string;
  /** Gives addresses their identity, with the parameter rules of the site. */
  identify?: (href: string, base?: string) => Identified | null;
}

/** Elements of a path; those further in are not named. */
const MAX_DEPTH = 40;
const placementOfElement = elementTable<Placement>({
  header: 'header',
  nav: 'nav',
  main: 'main',
  aside: 'aside',
  footer: 'footer',
});
const placementOfRole = new Map<string, Placement>([
  ['banner', 'header'],
  ['navigation', 'nav'],
  ['main', 'main'],
  ['complementary', 'aside'],
  ['contentinfo', 'footer'],
]);
/** What stands in these is not content of the page. */
const inert = elementSet('script style template');
/** Elements that end no word. */
const inline = elementSet(
  'a abbr b bdi bdo cite code dfn em font i kbd mark q s small span strong sub sup time u var wbr',
);
const embedding = elementTable(embeddings);
const breadcrumbMark = 'readcrumb';
const MAX_H1 = 20;
const MAX_CRUMBS = 30;
const MAX_IDS = 20_000;
const MAX_REL = 200;
const MAX_STEP = 100;

/** An element that is open, with what a link inside it needs to know. */
interface Frame {
  name: string;
  parent: Frame | null;
  depth: number;
  /** The class attribute as written. */
  className: string;
  placement: Placement;
  /** Filled when a link first asks for it. */
  path: string | null;
  /** The paths of what stands in it, by their last steps: one string for all that share it. */
  paths: Map<string, string> | null;
}

interface FoundLink {
  position: number;
  kind: LinkKind;
  element: LinkElement;
  href: string;
  anchor: string;
  rel: string;
  placement: Placement;
  above: string;
  bareImage: boolean;
}

function pathOf(frame: Frame | null, decode: (raw: string) => string): string {
  if (!frame || frame.name === 'html') return '';
  if (frame.path !== null) return frame.path;
  // Nesting without bound must not make paths, or calls, without bound.
  let named = frame;
  while (named.depth > MAX_DEPTH) named = named.parent!;
  if (named !== frame) return (frame.path = pathOf(named, decode));
  const { name, className, parent } = frame;
  const step = className === '' ? clip(name, MAX_STEP) : stepOf(name, decode(className));
  const above = pathOf(parent, decode);
  if (!parent || !above) return (frame.path = step);
  parent.paths ??= new Map();
  let path = parent.paths.get(step);
  if (path === undefined) parent.paths.set(step, (path = `${above}>${step}`));
  return (frame.path = path);
}

function stepOf(name: string, classes: string): string {
  const first = classes.trim().split(/\s+/, 3).filter(Boolean);
  return clip([name, ...first].join('.'), MAX_STEP);
}

/**
 * The name of an id, in the form in which fragments are compared with it: percent-escapes are resolved in a fragment,
 * not in an id.
 */
export function fragmentName(fragment: string): string {
  try {
    return decodeURIComponent(fragment);
  } catch {
    return fragment;
  }
}

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
 * Reads an HTML document in one pass over its bytes.
 * @param bytes the body as received, decompressed
 * @param address where it was found, in normal form; `<base href>` is honoured
 */
export function readHtml(
  bytes: Uint8Array,
  address: string,
  { charset, identify = identifyPlainly }: ReadOptions = {},
): HtmlFacts {
  const { binary, decode } = readMarkup(bytes, charset);
  const text = (raw: string) => clip(fold(resolveReferences(decode(raw))));
  const attribute = (tag: Tag, name: string) => {
    const raw = tag.get(name);
    return raw === undefined ? undefined : resolveAttributeReferences(decode(raw));
  };

  const facts: HtmlFacts = {
    title: null,
    description: null,
    language: null,
    h1: [],
    canonicals: [],
    directives: [],
    refresh: null,
    breadcrumb: null,
    ids: [],
    wordCount: 0,
    fingerprint: null,
    links: [],
  };
  const found: FoundLink[] = [];
  const rules: { agent: string; content: string; position: number }[] = [];
  let base: string | null = null;
  let refresh: string | null = null;
  let frame: Frame | null = null;
  let inertDepth = 0;
  let svgDepth = 0;
  /** The element whose text is being gathered for a fact, with its raw text so far. */
  let gathering: { name: 'title' | 'h1'; raw: string } | null = null;
  /** Text within `main`, and text in no landmark. */
  let mainText = '';
  let bareText = '';
  /** Whether an element that ends a word began or ended since the last text. */
  let gap = false;
  let hasMain = false;
  let jsonLd: string | null = null;
  const jsonScripts: string[] = [];
  /** Depth of the element that is marked as breadcrumb, and the links in it. */
  let crumbDepth = 0;
  const crumbs: FoundLink[] = [];
  let click: { link: FoundLink; raw: string; alts: string[]; label?: string; title?: string } | null = null;

  const add = (kind: LinkKind, element: LinkElement, href: string, tag: Tag): FoundLink => {
    const rel = attribute(tag, 'rel');
    const link: FoundLink = {
      position: tag.position,
      kind,
      element,
      href,
      anchor: '',
      rel: rel === undefined ? '' : clip(fold(rel.toLowerCase()), MAX_REL),
      placement: frame?.placement ?? 'none',
      above: pathOf(frame, decode),
      bareImage: false,
    };
    found.push(link);
    return link;
  };

  const endClick = () => {
    if (!click) return;
    const { link, raw, alts, label, title } = click;
    link.anchor = text(raw) || clip(fold(alts.join(' ')) || fold(label ?? '') || fold(title ?? ''));
    link.bareImage = link.anchor === '' && alts.length > 0;
    click = null;
  };

  const endGathering = () => {
    if (gathering?.name === 'title') facts.title = text(gathering.raw);
    else if (gathering) facts.h1.push(text(gathering.raw));
    gathering = null;
  };

  const readMeta = (tag: Tag) => {
    const content = attribute(tag, 'content') ?? '';
    const name = (attribute(tag, 'name') ?? '').trim().toLowerCase();
    if (name === 'description') facts.description ??= clip(fold(content));
    else if (name === 'robots' || (name && isRobotsContent(content)))
      rules.push({ agent: name === 'robots' ? '' : name, content, position: tag.position });
    if ((attribute(tag, 'http-equiv') ?? '').trim().toLowerCase() === 'refresh' && refresh === null) {
      refresh = readRefresh(content);
      if (refresh !== null) add('refresh', 'meta', refresh, tag);
    }
  };

  const readDeclaration = (tag: Tag) => {
    const href = attribute(tag, 'href');
    if (!href) return;
    const rel = (attribute(tag, 'rel') ?? '').toLowerCase().split(/\s+/);
    const kind = relationOf(rel, tag.get('hreflang') !== undefined);
    if (!kind) return;
    const link = add(kind, 'link', href, tag);
    if (kind === 'hreflang') link.anchor = fold(attribute(tag, 'hreflang') ?? '');
  };

  const readEmbedding = (tag: Tag) => {
    const { kind, element, attributes } = embedding[tag.number]!;
    if (tag.name === 'input' && tag.get('type')?.toLowerCase() !== 'image') return;
    for (const which of attributes) {
      const href = attribute(tag, which);
      if (!href?.trim()) continue;
      const link = add(kind, element, href, tag);
      if (kind === 'image') link.anchor = clip(fold(attribute(tag, 'alt') ?? ''));
    }
  };

  const mayHaveTrail = binary.includes(breadcrumbMark);
  const isMarked = (mark: string | undefined) => mark !== undefined && mark.includes(breadcrumbMark);
  const isCrumbTrail = ({ get }: Tag) =>
    isMarked(get('class')) || isMarked(get('aria-label')) || isMarked(get('id')) || isMarked(get('itemtype'));

  const readAnchor = (tag: Tag, element: 'a' | 'area') => {
    if (element === 'a') endClick();
    const href = attribute(tag, 'href');
    if (href === undefined) return;
    const link = add('click', element, href, tag);
    if (crumbDepth && crumbs.length < MAX_CRUMBS) crumbs.push(link);
    const label = attribute(tag, 'aria-label');
    const title = attribute(tag, 'title');
    if (element === 'a') click = { link, raw: '', alts: [], label, title };
    else link.anchor = clip(fold(attribute(tag, 'alt') || label || title || ''));
  };

  const readElement = (tag: Tag) => {
    const { name, number } = tag;
    if (embedding[number]) {
      if (name === 'img' && click) click.alts.push(attribute(tag, 'alt') ?? '');
      readEmbedding(tag);
      if (name === 'script' && /^\s*application\/ld\+json/i.test(tag.get('type') ?? '')) jsonLd = '';
    } else if (name === 'a' || name === 'area') readAnchor(tag, name);
    else if (name === 'meta') readMeta(tag);
    else if (name === 'link') readDeclaration(tag);
    else if (name === 'base') base ??= attribute(tag, 'href') ?? null;
    else if (name === 'html') facts.language ??= fold(attribute(tag, 'lang') ?? '') || null;
    else if (name === 'title' && svgDepth === 0 && facts.title === null) gathering ??= { name, raw: '' };
    else if (name === 'h1' && facts.h1.length < MAX_H1) gathering ??= { name, raw: '' };
  };

  scanMarkup(binary, {
    onOpen(tag) {
      const { name, number } = tag;
      const role = tag.get('role');
      const placement: Placement =
        (role && placementOfRole.get(role.trim().toLowerCase())) ||
        (placementOfElement[number] ?? frame?.placement ?? 'none');
      const depth = (frame?.depth ?? 0) + 1;
      if (placement === 'main') hasMain = true;
      if (!inline[number]) gap = true;
      if (mayHaveTrail && crumbDepth === 0 && inertDepth === 0 && isCrumbTrail(tag)) crumbDepth = depth;
      if (facts.ids.length < MAX_IDS && inertDepth === 0) {
        const id = attribute(tag, 'id');
        if (id) facts.ids.push(id);
        const anchorName = name === 'a' && attribute(tag, 'name');
        if (anchorName) facts.ids.push(anchorName);
      }
      if (inertDepth === 0) readElement(tag);
      if (inert[number]) inertDepth++;
      if (name === 'svg') svgDepth++;
      frame = { name, parent: frame, depth, className: tag.get('class') ?? '', placement, path: null, paths: null };
    },
    onText(raw) {
      if (jsonLd !== null) jsonLd += raw;
      if (inertDepth > 0) return;
      if (gathering) gathering.raw += raw;
      if (click) click.raw += raw;
      if (svgDepth > 0 || frame?.name === 'title') return;
      const placement = frame?.placement ?? 'none';
      if (placement === 'main') mainText += gap ? ` ${raw}` : raw;
      else if (placement === 'none') bareText += gap ? ` ${raw}` : raw;
      gap = false;
    },
    onClose(name, number) {
      if (frame && frame.depth === crumbDepth) crumbDepth = 0;
      frame = frame?.parent ?? null;
      if (inert[number]) inertDepth--;
      if (name === 'svg') svgDepth--;
      if (name === 'a') endClick();
      if (name === 'script' && jsonLd !== null) {
        jsonScripts.push(jsonLd);
        jsonLd = null;
      }
      if (!inline[number]) gap = true;
      if (gathering?.name === name) endGathering();
    },
  });
  endClick();
  endGathering();

  const baseAddress = (base !== null && identify(base, address)?.address) || address;
  const places = linesAndColumns(
    binary,
    found.map(({ position }) => position),
  );
  // Written out member by member: on pages of many links, spreading objects costs more than parsing them.
  found.forEach(({ href, kind, element, anchor, rel, placement, above, bareImage }, i) => {
    const { line, column } = places[i];
    const to = identify(href, baseAddress);
    if (to)
      facts.links.push({
        kind,
        element,
        target: to.address,
        anchor,
        rel,
        placement,
        above,
        fragment: clip(to.fragment),
        line,
        column,
        bareImage,
        relative: kind === 'canonical' && isRelative(href),
      });
    else {
      const target = kind === 'click' ? malformedTarget(href) : null;
      if (target)
        facts.links.push({
          kind,
          element,
          target,
          anchor,
          rel,
          placement,
          above,
          fragment: '',
          line,
          column,
          malformed: true,
        });
    }
  });
  const ruleLines = linesAndColumns(
    binary,
    rules.map(({ position }) => position),
  );
  facts.directives = rules.map(({ agent, content }, i) => ({ agent, content, line: ruleLines[i].line }));
  facts.canonicals = facts.links.filter(({ kind }) => kind === 'canonical').map(({ target }) => target);
  facts.refresh = facts.links.find(({ kind, target }) => kind === 'refresh' && target !== address)?.target ?? null;
  const resolve = (href: string) => identify(href, baseAddress)?.address ?? null;
  const fromJson = jsonScripts.map((raw) => breadcrumbOfJson(decode(raw), resolve)).find((trail) => trail !== null);
  facts.breadcrumb =
    fromJson ?? (crumbs.length ? crumbs.map(({ anchor, href }) => ({ name: anchor, address: resolve(href) })) : null);
  Object.assign(facts, readWords(resolveReferences(decode(hasMain ? mainText : bareText))));
  return facts;
}
