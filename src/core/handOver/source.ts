/** Edits put into the source of their page, wherever the place of one is unambiguous. */
import type { Edit } from '../draft';
import { blockAt, lineStarts, readBlocks, readHtml, readMarkup, runAt, scanMarkup, sourceRange } from '../html';
import type { Block } from '../html';
import { sentenceAround } from '../language';
import type { Link } from '../links';
import type { Scope } from '../scope';

/** The source of a page, as it was received. */
export interface PageSource {
  address: string;
  bytes: Uint8Array;
  /** As its Content-Type names it. */
  charset: string | undefined;
}

/** What an edit does to a source. */
export interface SourceEdit {
  /** The sentence, or block, that it is about, and the same afterwards; null where there is none, or several. */
  before: Block | null;
  after: Block | null;
  /** Whether the edited source has it. */
  placed: boolean;
}

/** A piece of the source that another one takes the place of, a character a byte. */
interface Splice {
  from: number;
  to: number;
  text: string;
}

/** How far around a place is looked for what belongs to it, and in how much of a document for its head. */
const MOST_AROUND = 8192;
const MOST_OF_HEAD = 200_000;
/** An edit that changes more places of one page is left to a person. */
const MOST_PLACES = 100;

const utf8 = new TextEncoder();
const fromUtf8 = new TextDecoder('utf-8', { ignoreBOM: true });
/** One character for each byte of a text in UTF-8. */
const bytesText = (text: string) => String.fromCharCode(...utf8.encode(text));
const escapeText = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
const escapeValue = (text: string) => escapeText(text).replace(/"/g, '&quot;');

/** Where the only match of a pattern begins; −1 for none, and for several. */
function onlyMatch(text: string, pattern: RegExp): number {
  const found = [...text.matchAll(pattern)];
  return found.length === 1 ? found[0].index : -1;
}

/** An address as a link on a page of the same origin is written. */
function hrefOf(address: string, page: string): string {
  const [target, own] = [new URL(address, page), new URL(page)];
  return target.origin === own.origin ? target.pathname + target.search + target.hash : target.href;
}

/** Where the start tag at a position ends, and where the attributes in it stand. */
function tagAt(binary: string, from: number): { end: number; valueOf: (name: string) => [number, number] | null } {
  const [tag] = /^<[^>"']*(?:"[^"]*"[^>"']*|'[^']*'[^>"']*)*>/.exec(binary.slice(from, from + MOST_AROUND)) ?? [''];
  return {
    end: tag ? from + tag.length : -1,
    valueOf: (name) => {
      const found = new RegExp(`[\\s"']${name}\\s*=\\s*("[^"]*"|'[^']*'|[^\\s>]+)`, 'i').exec(tag);
      if (!found) return null;
      const begin = from + found.index + found[0].length - found[1].length;
      const isQuoted = /^["']/.test(found[1]);
      return [begin + Number(isQuoted), begin + found[1].length - Number(isQuoted)];
    },
  };
}

/** Where a link's words stand, and where its element ends; null where it has no plain end. */
function elementAt(binary: string, from: number): { inner: [number, number]; end: number } | null {
  const { end } = tagAt(binary, from);
  const found = end < 0 ? null : /<\/a\s*>/i.exec(binary.slice(end, end + MOST_AROUND));
  return found && { inner: [end, end + found.index], end: end + found.index + found[0].length };
}

function removal(binary: string, from: number): Splice | null {
  const element = elementAt(binary, from);
  if (!element) return null;
  const begin = Math.max(0, from - MOST_AROUND);
  const before = /<li\b[^<>]*>\s*$/i.exec(binary.slice(begin, from));
  const after = /^\s*<\/li\s*>/i.exec(binary.slice(element.end, element.end + MOST_AROUND));
  // An item that would be left empty goes as a whole, with the white space before it.
  if (before && after) {
    const start = begin + binary.slice(begin, begin + before.index).trimEnd().length;
    return { from: start, to: element.end + after[0].length, text: '' };
  }
  return { from, to: element.end, text: binary.slice(...element.inner) };
}

function rewording(binary: string, from: number, words: string): Splice | null {
  const element = elementAt(binary, from);
  if (!element) return null;
  const [begin, end] = element.inner;
  // The words may stand in an element, with nothing else beside it.
  const runs = [...binary.slice(begin, end).matchAll(/[^<>]+(?=<|$)/g)].filter(
    ({ index, 0: text }) => text.trim() !== '' && (index === 0 || binary[begin + index - 1] === '>'),
  );
  if (runs.length !== 1) return null;
  const [{ index, 0: text }] = runs;
  const start = begin + index + (text.length - text.trimStart().length);
  return { from: start, to: start + text.trim().length, text: bytesText(escapeText(words)) };
}

function retargeting(binary: string, from: number, href: string): Splice | null {
  const value = tagAt(binary, from).valueOf('href');
  return value && { from: value[0], to: value[1], text: bytesText(escapeValue(href)) };
}

const notInText = /^(a|h[1-6]|title|script|style|nav|header|footer|button|option|figcaption|template|textarea)$/;

/** Where words stand that a link can be put on: once in the page, in text that is no link or heading; −1 otherwise. */
function wordsAt(binary: string, words: string): number {
  const written = bytesText(escapeText(words));
  const at = written ? binary.indexOf(written) : -1;
  if (at < 0 || binary.indexOf(written, at + 1) >= 0) return -1;
  const isPart = /[\p{L}\p{N}]/u;
  if (isPart.test(binary[at - 1] ?? '') || isPart.test(binary[at + written.length] ?? '')) return -1;
  let closed = 0;
  let isThere = false;
  scanMarkup(binary, {
    onOpen: ({ name }) => void (closed += Number(notInText.test(name))),
    onText: (raw) => void (isThere ||= closed === 0 && raw.includes(written)),
    onClose: (name) => void (closed -= Number(notInText.test(name))),
  });
  return isThere ? at : -1;
}

/** White space before a place, back to the end of the line above. */
const indentAt = (binary: string, at: number) => /[ \t]*$/.exec(binary.slice(Math.max(0, at - 200), at))![0];

/** A line before the only end tag of an element; null where there is none, or several. */
function lineBefore(binary: string, element: string, line: string, deeper: string): Splice | null {
  const at = onlyMatch(binary, new RegExp(`</${element}\\s*>`, 'gi'));
  if (at < 0) return null;
  const indent = indentAt(binary, at);
  const isAlone = binary[at - indent.length - 1] === '\n';
  const ending = binary.includes('\r\n') ? '\r\n' : '\n';
  const from = isAlone ? at - indent.length : at;
  return { from, to: from, text: bytesText(isAlone ? `${indent}${deeper}${line}${ending}` : line) };
}

/** Where words stand in a sentence of the content that has no link there; null where they are nowhere so. */
function wordsInSentence({ blocks, markup }: ReturnType<typeof readBlocks>, words: string, sentence: string) {
  const folded = (text: string) => text.replace(/\s+/g, ' ').trim();
  const pattern = new RegExp(
    words
      .trim()
      .split(/\s+/)
      .map((word) => word.replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&'))
      .join('\\s+'),
    'gu',
  );
  for (const block of blocks) {
    if (!folded(block.text).includes(folded(sentence))) continue;
    for (const { index, 0: found } of block.text.matchAll(pattern)) {
      const around = sentenceAround(block.text, index, index + found.length, '');
      const isIn = around !== null && folded(block.text.slice(...around)) === folded(sentence);
      const range =
        isIn && !runAt(block, index).isLink ? sourceRange(block, index, index + found.length, markup) : null;
      if (range) return range;
    }
  }
  return null;
}

function addition(binary: string, page: string, edit: Edit, content: () => ReturnType<typeof readBlocks>) {
  const { anchor, target, placement, value: sentence } = edit;
  const open = `<a href="${escapeValue(hrefOf(target, page))}">`;
  const link = (words: string) => `${open}${escapeText(words)}</a>`;
  const range = sentence && anchor ? wordsInSentence(content(), anchor, sentence) : null;
  if (range) return { from: range[0], to: range[1], text: `${bytesText(open)}${binary.slice(...range)}</a>` };
  // What was said in a sentence that is gone is for a person to see.
  if (sentence) return null;
  const element = placement === '' || placement === 'none' ? 'main' : placement;
  const at = element === 'main' ? wordsAt(binary, anchor) : -1;
  if (at >= 0) return { from: at, to: at + bytesText(escapeText(anchor)).length, text: bytesText(link(anchor)) };
  if (anchor === '') return null;
  // A page without a main element has its content in the body.
  const isBody = element === 'main' && !/<main[\s>]/i.test(binary);
  return lineBefore(binary, isBody ? 'body' : element, `<p>${link(anchor)}</p>`, '  ');
}

const metaTag = /<meta\b[^<>]*>/gi;
const isOfRobots = /\sname\s*=\s*["']?robots["'\s>]/i;

/** Changes what the page says to crawlers: the only meta element that does, or a new one. */
function ruling(binary: string, change: (rules: string[]) => string[]): Splice | null {
  const metas = [...binary.slice(0, MOST_OF_HEAD).matchAll(metaTag)].filter(([tag]) => isOfRobots.test(tag));
  if (metas.length > 1) return null;
  if (metas.length === 0) {
    const rules = change([]);
    const meta = `<meta name="robots" content="${rules.join(', ')}">`;
    return rules.length ? lineBefore(binary, 'head', meta, '  ') : null;
  }
  const value = tagAt(binary, metas[0].index).valueOf('content');
  if (!value) return null;
  const written = binary.slice(...value).split(',');
  const rules = change(written.map((rule) => rule.trim().toLowerCase()).filter(Boolean));
  return { from: value[0], to: value[1], text: rules.join(', ') };
}

type Forbidding = 'noindex' | 'nofollow';
const adding = (rule: Forbidding) => (rules: string[]) => [
  ...rules.filter((one) => one !== rule && one !== rule.slice(2) && one !== 'all'),
  rule,
];
/** What says both leaves the other one. */
const dropping = (rule: Forbidding) => (rules: string[]) =>
  rules
    .map((one) => (one === 'none' ? (rule === 'noindex' ? 'nofollow' : 'noindex') : one))
    .filter((one) => one !== rule);

/**
 * Puts edits into a source.
 * @returns the source before and after, null where it is not in UTF-8, and what each edit does
 */
export function editSource(
  { address, bytes, charset }: PageSource,
  edits: readonly Edit[],
  { identify }: Scope,
): { source: { before: string; after: string } | null; edits: SourceEdit[] } {
  const { binary, isUtf8 } = readMarkup(bytes, charset);
  const { links } = readHtml(bytes, address, { charset, identify });
  let read: ReturnType<typeof readBlocks> | null = null;
  const content = () => (read ??= readBlocks(bytes, charset));
  const starts = lineStarts(binary);
  const positionOf = ({ line, column }: Link) => starts[line - 1] + column - 1;
  const addressOf = (text: string) => identify(text, address)?.address ?? text;
  const placeAt = (position: number, text = binary) => {
    const lines = text === binary ? starts : lineStarts(text);
    const line = lines.findLastIndex((start) => start <= position);
    return { line: line + 1, column: position - lines[line] + 1 };
  };

  const linksOf = (edit: Edit) =>
    links.filter(
      ({ kind, element, target, anchor, placement }) =>
        kind === 'click' &&
        element === 'a' &&
        target === addressOf(edit.target) &&
        (!edit.anchor || edit.anchor === anchor) &&
        (!edit.placement || edit.placement === placement),
    );
  const ofLinks = (edit: Edit, change: (at: number) => Splice | null) => {
    const found = linksOf(edit);
    return found.length > MOST_PLACES ? [] : found.map((link) => change(positionOf(link)));
  };
  const canonicalSplice = (edit: Edit): Splice | null => {
    const found = links.filter(({ kind, element }) => kind === 'canonical' && element === 'link');
    const href = edit.target && new URL(edit.target, address).href;
    if (found.length > 1) return null;
    if (found.length === 0)
      return href ? lineBefore(binary, 'head', `<link rel="canonical" href="${escapeValue(href)}">`, '  ') : null;
    const at = positionOf(found[0]);
    const { end } = tagAt(binary, at);
    return href ? retargeting(binary, at, href) : end < 0 ? null : { from: at, to: end, text: '' };
  };
  const splicesOf = (edit: Edit): (Splice | null)[] => {
    switch (edit.op) {
      case 'add_link':
        return [addition(binary, address, edit, content)];
      case 'remove_link':
        return ofLinks(edit, (at) => removal(binary, at));
      case 'reword_link':
        return ofLinks(edit, (at) => rewording(binary, at, edit.value));
      case 'retarget_link':
        return ofLinks(edit, (at) => retargeting(binary, at, hrefOf(edit.value, address)));
      case 'canonical':
        return [canonicalSplice(edit)];
      case 'noindex':
      case 'nofollow':
        return [ruling(binary, adding(edit.op))];
      case 'index':
      case 'follow':
        return [ruling(binary, dropping(edit.op === 'index' ? 'noindex' : 'nofollow'))];
      default:
        return [];
    }
  };

  /** The block of an edit of a link before and after, where it is about one. */
  const blocksOf = (edit: Edit, splice: Splice): Pick<SourceEdit, 'before' | 'after'> => {
    const spliced = bytesFrom(applied(binary, [splice]));
    if (edit.op === 'add_link') {
      const at = splice.from + splice.text.indexOf('<a href=');
      return { before: null, after: blockAt(spliced, charset, placeAt(at, applied(binary, [splice]))) };
    }
    const [link] = linksOf(edit);
    if (!link) return { before: null, after: null };
    const place = placeAt(positionOf(link));
    const before = blockAt(bytes, charset, place);
    return { before, after: edit.op === 'remove_link' ? null : blockAt(spliced, charset, place) };
  };

  const taken: Splice[] = [];
  const results = edits.map((edit): SourceEdit => {
    const splices = splicesOf(edit);
    const found = splices.filter((splice) => splice !== null);
    const isFree = found.every((one) => taken.every(({ from, to }) => one.to <= from || one.from >= to));
    const placed = found.length > 0 && found.length === splices.length && isFree;
    if (placed) taken.push(...found);
    const blocks = found.length === 1 ? blocksOf(edit, found[0]) : { before: null, after: null };
    return { ...blocks, placed };
  });
  const text = (part: string) => fromUtf8.decode(bytesFrom(part));
  return { source: isUtf8 ? { before: text(binary), after: text(applied(binary, taken)) } : null, edits: results };
}

const bytesFrom = (binary: string) => Uint8Array.from(binary, (char) => char.charCodeAt(0));

/** Puts splices into a text, those that come at the same place in their order. */
function applied(text: string, splices: readonly Splice[]): string {
  let at = 0;
  let made = '';
  for (const { from, to, text: put } of [...splices].sort((a, b) => a.from - b.from)) {
    made += text.slice(at, from) + put;
    at = to;
  }
  return made + text.slice(at);
}
