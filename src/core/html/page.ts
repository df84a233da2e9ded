import { limitOf } from '../facts';
import { identify as identifyPlainly } from '../url';
import type { Link, LinkElement, LinkKind } from '../links';
import { addToBlock, addWords, endBlock, isInBlock } from './besideLinks';
import type { Block } from './besideLinks';
import { breadcrumbOfJson, MAX_CRUMBS } from './breadcrumb';
import { modifiedOfJson, modifiedText } from './modified';
import type { Crumb } from './breadcrumb';
import { clip, fold, linesAndColumns, readMarkup, resolveAttributeReferences, resolveReferences } from './bytes';
import { readWords } from '../words';
import { isRobotsContent } from './directives';
import type { Directive } from './directives';
import { elementSet, elementTable } from './elements';
import { inline } from './inline';
import { landmarkOf } from './landmark';
import type { Landmark } from './landmark';
import { readRefresh } from './refresh';
import { resolveLinks } from './resolve';
import type { Identify } from './resolve';
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
  /** When it says that it was changed last, as a W3C date. */
  modified: string | null;
  /** What fragments can name: ids, and names of anchors. */
  ids: string[];
  /** Words of the main content: of `main` or, without it, of what stands in no landmark. */
  wordCount: number;
  /** See `readWords`. */
  fingerprint: [number, number] | null;
  /** Which words the main content has (src/core/words). */
  wordFilter: Uint8Array;
  links: Link[];
  /** Whether there was more of something than is kept. */
  truncated: boolean;
}

export interface ReadOptions {
  /** Charset parameter of the Content-Type header. */
  charset?: string;
  identify?: Identify;
}

/** Elements of a path; those further in are not named. */
const MAX_DEPTH = 40;
/** What stands in these is not content of the page. */
const inert = elementSet('script style template');
const embedding = elementTable(embeddings);
const breadcrumbMark = 'readcrumb';
const MAX_H1 = 20;
/** Links of one page; those after them are not kept. */
export const MAX_LINKS = 100_000;
const MAX_IDS = 20_000;
/** Characters of all paths of a page: hundreds of thousands of links may share a long beginning. */
const MAX_PATHS_LENGTH = 4_000_000;
const MAX_REL = 200;
const MAX_STEP = 100;

/** An element that is open, with what a link inside it needs to know. */
interface Frame extends Landmark {
  name: string;
  parent: Frame | null;
  depth: number;
  /** The class attribute as written. */
  className: string;
  /** Filled when a link first asks for it. */
  path: string | null;
  /** The paths of what stands in it, by their last steps: one string for all that share it. */
  paths: Map<string, string> | null;
}

function pathOf(state: PageState, frame: Frame | null): string {
  if (!frame || frame.name === 'html') return '';
  if (frame.path !== null) return frame.path;
  // Nesting without bound must not make paths, or calls, without bound.
  let named = frame;
  while (named.depth > MAX_DEPTH) named = named.parent!;
  if (named !== frame) return (frame.path = pathOf(state, named));
  const { name, className, parent } = frame;
  const step = className === '' ? clip(name, MAX_STEP) : stepOf(name, state.decode(className));
  const above = pathOf(state, parent);
  if (!parent || !above) return (frame.path = step);
  parent.paths ??= new Map();
  let path = parent.paths.get(step);
  if (path === undefined) {
    if ((state.pathRoom -= above.length + step.length) < 0) {
      state.facts.truncated = true;
      return (frame.path = above);
    }
    parent.paths.set(step, (path = `${above}>${step}`));
  }
  return (frame.path = path);
}

function stepOf(name: string, classes: string): string {
  const first = classes.trim().split(/\s+/, 3).filter(Boolean);
  return clip([name, ...first].join('.'), MAX_STEP);
}

/** A click link whose words are being gathered. */
interface OpenClick {
  link: Link;
  raw: string;
  alts: string[];
  label?: string;
  title?: string;
}

/** What is known of a document while it is read. Texts are as written, in the bytes of the document. */
type PageState = ReturnType<typeof startState>;

const noFacts = (): HtmlFacts => ({
  title: null,
  description: null,
  language: null,
  h1: [],
  canonicals: [],
  directives: [],
  refresh: null,
  breadcrumb: null,
  modified: null,
  ids: [],
  wordCount: 0,
  fingerprint: null,
  wordFilter: new Uint8Array(0),
  links: [],
  truncated: false,
});

const startState = (binary: string, decode: (raw: string) => string) => ({
  decode,
  facts: noFacts(),
  /** Links with their targets as written, and where each stands. */
  found: [] as Link[],
  positions: [] as number[],
  rules: [] as { agent: string; content: string; position: number }[],
  base: null as string | null,
  refresh: null as string | null,
  frame: null as Frame | null,
  /** How many characters paths may still take. */
  pathRoom: MAX_PATHS_LENGTH,
  /** How many elements are open whose content is none of the page, and how many `svg`. */
  inertDepth: 0,
  svgDepth: 0,
  /** The element whose text is being gathered for a fact, with its raw text so far. */
  gathering: null as { name: 'title' | 'h1'; raw: string } | null,
  /** Text within `main`, and text in no landmark. */
  mainText: '',
  bareText: '',
  /** Whether an element that ends a word began or ended since the last text. */
  gap: false,
  hasMain: false,
  jsonLd: null as string | null,
  jsonScripts: [] as string[],
  mayHaveTrail: binary.includes(breadcrumbMark),
  /** Depth of the element that is marked as breadcrumb, and the links in it, with their targets as written. */
  crumbDepth: 0,
  crumbs: [] as { link: Link; href: string }[],
  click: null as OpenClick | null,
  block: { only: null, isShared: false } as Block,
});

const wholeText = ({ decode }: PageState, raw: string) => fold(resolveReferences(decode(raw)));
/** One character more than is kept, so that whoever keeps it sees that it was longer. */
const factText = (text: string, fact: 'title' | 'description' | 'h1') => clip(text, limitOf(fact) + 1);

function attributeOf({ decode }: PageState, tag: Tag, name: string): string | undefined {
  const raw = tag.get(name);
  return raw === undefined ? undefined : resolveAttributeReferences(decode(raw));
}

function addLink(state: PageState, kind: LinkKind, element: LinkElement, href: string, tag: Tag): Link {
  const rel = attributeOf(state, tag, 'rel');
  const link: Link = {
    kind,
    element,
    target: href,
    anchor: '',
    rel: rel === undefined ? '' : clip(fold(rel.toLowerCase()), MAX_REL),
    placement: state.frame?.placement ?? 'none',
    above: pathOf(state, state.frame),
    fragment: '',
    line: 0,
    column: 0,
    bareImage: false,
    beside: false,
    relative: false,
  };
  if (state.found.length < MAX_LINKS) {
    state.found.push(link);
    state.positions.push(tag.position);
  } else state.facts.truncated = true;
  return link;
}

function endClick(state: PageState): void {
  if (!state.click) return;
  const { link, raw, alts, label, title } = state.click;
  link.anchor = clip(wholeText(state, raw)) || clip(fold(alts.join(' ')) || fold(label ?? '') || fold(title ?? ''));
  link.bareImage = link.anchor === '' && alts.length > 0;
  state.click = null;
}

function endGathering(state: PageState): void {
  const { gathering, facts } = state;
  if (gathering?.name === 'title') facts.title = factText(wholeText(state, gathering.raw), 'title');
  else if (gathering) facts.h1.push(factText(wholeText(state, gathering.raw), 'h1'));
  state.gathering = null;
}

function readMeta(state: PageState, tag: Tag): void {
  const content = attributeOf(state, tag, 'content') ?? '';
  const name = (attributeOf(state, tag, 'name') ?? '').trim().toLowerCase();
  if (name === 'description') state.facts.description ??= factText(fold(content), 'description');
  else if (name === 'robots' || (name && isRobotsContent(content)))
    state.rules.push({ agent: name === 'robots' ? '' : name, content, position: tag.position });
  const property = (attributeOf(state, tag, 'property') ?? attributeOf(state, tag, 'itemprop') ?? '').toLowerCase();
  if (property === 'article:modified_time' || property === 'datemodified')
    state.facts.modified ??= modifiedText(content);
  const isRefresh = (attributeOf(state, tag, 'http-equiv') ?? '').trim().toLowerCase() === 'refresh';
  if (!isRefresh || state.refresh !== null) return;
  state.refresh = readRefresh(content);
  if (state.refresh !== null) addLink(state, 'refresh', 'meta', state.refresh, tag);
}

function readDeclaration(state: PageState, tag: Tag): void {
  const href = attributeOf(state, tag, 'href');
  if (!href) return;
  const rel = (attributeOf(state, tag, 'rel') ?? '').toLowerCase().split(/\s+/);
  const kind = relationOf(rel, tag.get('hreflang') !== undefined);
  if (!kind) return;
  const link = addLink(state, kind, 'link', href, tag);
  if (kind === 'hreflang') link.anchor = fold(attributeOf(state, tag, 'hreflang') ?? '');
}

function readEmbedding(state: PageState, tag: Tag): void {
  const { kind, element, attributes } = embedding[tag.number]!;
  if (tag.name === 'input' && tag.get('type')?.toLowerCase() !== 'image') return;
  for (const which of attributes) {
    const href = attributeOf(state, tag, which);
    if (!href?.trim()) continue;
    const link = addLink(state, kind, element, href, tag);
    if (kind === 'image') link.anchor = clip(fold(attributeOf(state, tag, 'alt') ?? ''));
  }
}

const isMarked = (mark: string | undefined) => mark !== undefined && mark.includes(breadcrumbMark);
const isCrumbTrail = ({ get }: Tag) =>
  isMarked(get('class')) || isMarked(get('aria-label')) || isMarked(get('id')) || isMarked(get('itemtype'));

function readAnchor(state: PageState, tag: Tag, element: 'a' | 'area'): void {
  if (element === 'a') endClick(state);
  const href = attributeOf(state, tag, 'href');
  if (href === undefined) return;
  const link = addLink(state, 'click', element, href, tag);
  if (state.crumbDepth && state.crumbs.length < MAX_CRUMBS) state.crumbs.push({ link, href });
  const label = attributeOf(state, tag, 'aria-label');
  const title = attributeOf(state, tag, 'title');
  addToBlock(state.block, link);
  if (element === 'a') state.click = { link, raw: '', alts: [], label, title };
  else link.anchor = clip(fold(attributeOf(state, tag, 'alt') || label || title || ''));
}

/** Reads an element for the facts that it tells, and for its links. */
function readElement(state: PageState, tag: Tag): void {
  const { name, number } = tag;
  const { facts } = state;
  if (embedding[number]) {
    if (name === 'img' && state.click) state.click.alts.push(attributeOf(state, tag, 'alt') ?? '');
    readEmbedding(state, tag);
    if (name === 'script' && /^\s*application\/ld\+json/i.test(tag.get('type') ?? '')) state.jsonLd = '';
  } else if (name === 'a' || name === 'area') readAnchor(state, tag, name);
  else if (name === 'meta') readMeta(state, tag);
  else if (name === 'link') readDeclaration(state, tag);
  else if (name === 'base') state.base ??= attributeOf(state, tag, 'href') ?? null;
  else if (name === 'html') facts.language ??= fold(attributeOf(state, tag, 'lang') ?? '') || null;
  else if (name === 'title' && state.svgDepth === 0 && facts.title === null) state.gathering ??= { name, raw: '' };
  else if (name === 'h1' && facts.h1.length < MAX_H1) state.gathering ??= { name, raw: '' };
}

function readIds(state: PageState, tag: Tag): void {
  const { ids } = state.facts;
  if (ids.length >= MAX_IDS) return;
  const id = attributeOf(state, tag, 'id');
  if (id) ids.push(id);
  const anchorName = tag.name === 'a' && attributeOf(state, tag, 'name');
  if (anchorName) ids.push(anchorName);
}

function openElement(state: PageState, tag: Tag): void {
  const { name, number } = tag;
  const { frame: parent } = state;
  const landmark = landmarkOf(tag, parent);
  const depth = (parent?.depth ?? 0) + 1;
  if (landmark.placement === 'main') state.hasMain = true;
  if (!inline[number]) state.gap = true;
  if (!isInBlock(name, number)) endBlock(state.block);
  if (state.inertDepth === 0) {
    if (state.mayHaveTrail && state.crumbDepth === 0 && isCrumbTrail(tag)) state.crumbDepth = depth;
    readIds(state, tag);
    readElement(state, tag);
  }
  if (inert[number]) state.inertDepth++;
  if (name === 'svg') state.svgDepth++;
  state.frame = {
    name,
    parent,
    depth,
    className: tag.get('class') ?? '',
    ...landmark,
    path: null,
    paths: null,
  };
}

const AMPERSAND = 38;
const isAsciiWordUnit = (unit: number) =>
  (unit >= 97 && unit <= 122) || (unit >= 65 && unit <= 90) || (unit >= 48 && unit <= 57);

/** Whether a text has a letter or digit; bullets and lines between links are none. */
function hasWords({ decode }: PageState, raw: string): boolean {
  for (let i = 0; i < raw.length; i++) {
    const unit = raw.charCodeAt(i);
    if (isAsciiWordUnit(unit)) return true;
    if (unit === AMPERSAND || unit >= 128) {
      const rest = raw.slice(i).replace(/&[#\w]{1,40};?/g, ' ');
      return /[0-9a-z]/i.test(rest) || /[\p{L}\p{N}]/u.test(decode(rest));
    }
  }
  return false;
}

function readText(state: PageState, raw: string): void {
  if (state.jsonLd !== null) state.jsonLd += raw;
  if (state.inertDepth > 0) return;
  if (state.gathering) state.gathering.raw += raw;
  if (!state.click && !state.block.isShared && hasWords(state, raw)) addWords(state.block);
  if (state.click) state.click.raw += raw;
  const { frame } = state;
  if (state.svgDepth > 0 || frame?.name === 'title') return;
  const placement = frame?.placement ?? 'none';
  if (placement === 'main') state.mainText += state.gap ? ` ${raw}` : raw;
  else if (placement === 'none') state.bareText += state.gap ? ` ${raw}` : raw;
  state.gap = false;
}

function closeElement(state: PageState, name: string, number: number): void {
  if (state.frame && state.frame.depth === state.crumbDepth) state.crumbDepth = 0;
  state.frame = state.frame?.parent ?? null;
  if (inert[number]) state.inertDepth--;
  if (name === 'svg') state.svgDepth--;
  if (name === 'a') endClick(state);
  if (name === 'script' && state.jsonLd !== null) {
    state.jsonScripts.push(state.jsonLd);
    state.jsonLd = null;
  }
  if (!inline[number]) state.gap = true;
  if (!isInBlock(name, number)) endBlock(state.block);
  if (state.gathering?.name === name) endGathering(state);
}

function modifiedOf({ facts, jsonScripts, decode }: PageState): string | null {
  for (const raw of jsonScripts) {
    const found = modifiedOfJson(decode(raw));
    if (found) return found;
  }
  return facts.modified;
}

function trailOf({ jsonScripts, crumbs, decode }: PageState, resolve: (href: string) => string | null): Crumb[] | null {
  for (const raw of jsonScripts) {
    const trail = breadcrumbOfJson(decode(raw), resolve);
    if (trail !== null) return trail;
  }
  return crumbs.length ? crumbs.map(({ link, href }) => ({ name: link.anchor, address: resolve(href) })) : null;
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
  const state = startState(binary, decode);
  scanMarkup(binary, {
    onOpen: (tag) => openElement(state, tag),
    onText: (raw) => readText(state, raw),
    onClose: (name, number) => closeElement(state, name, number),
  });
  endClick(state);
  endGathering(state);

  const base = (state.base !== null && identify(state.base, address)?.address) || address;
  const { lines: ruleLines } = linesAndColumns(
    binary,
    state.rules.map(({ position }) => position),
  );
  const { links, truncated } = resolveLinks(state.found, state.positions, binary, base, identify);
  const content = resolveReferences(decode(state.hasMain ? state.mainText : state.bareText));
  return {
    ...state.facts,
    links,
    truncated: state.facts.truncated || truncated,
    directives: state.rules.map(({ agent, content }, i) => ({ agent, content, line: ruleLines[i] })),
    canonicals: links.filter(({ kind }) => kind === 'canonical').map(({ target }) => target),
    refresh: links.find(({ kind, target }) => kind === 'refresh' && target !== address)?.target ?? null,
    modified: modifiedOf(state),
    breadcrumb: trailOf(state, (href) => identify(href, base)?.address ?? null),
    ...readWords(content),
  };
}
