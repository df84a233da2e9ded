/**
 * Reads markup in one pass, as a browser would read it: tags and text by the rules of the HTML Standard (§13.2.5,
 * "Tokenization"), open elements by those rules of §13.2.6 that decide what an element stands in. It jumps from one `<`
 * to the next, which is what makes it quick, and takes time linear in the text.
 */
import { closings, htmlInForeign, textElements, voidElements } from './elements';

/** A start tag. Holds only while its handler runs. */
export interface Tag {
  /** In lower case. */
  name: string;
  /** Where its `<` stands. */
  position: number;
  /** An attribute as written, by its name in lower case; the first of several counts. */
  get: (attribute: string) => string | undefined;
}

export interface MarkupHandlers {
  onOpen: (tag: Tag) => void;
  /** Text as written; one run may come in several pieces. */
  onText: (raw: string) => void;
  /** Also for void elements, and for those whose end is implied. */
  onClose: (name: string) => void;
}

const GT = 62;
const SLASH = 47;
const BANG = 33;
const QUESTION = 63;
const EQUALS = 61;

const isSpace = (code: number) => code === 32 || code === 10 || code === 9 || code === 13 || code === 12;
const isLetter = (code: number) => (code >= 97 && code <= 122) || (code >= 65 && code <= 90);
/** Names of tags and attributes by their spellings: one string in lower case for each, which is quick to look up by. */
const names = new Map<string, string>();
const MAX_NAMES = 5000;
const MAX_NAME_LENGTH = 40;
/** The key of an object is a string of its own; a slice would keep the whole document. */
const ownCopy = (text: string) => Object.keys({ [text]: 0 })[0];

function nameOf(written: string): string {
  const known = names.get(written);
  if (known !== undefined) return known;
  if (written.length > MAX_NAME_LENGTH) return written.toLowerCase();
  if (names.size >= MAX_NAMES) names.clear();
  const name = ownCopy(written.toLowerCase());
  names.set(ownCopy(written), name);
  return name;
}

/** Browsers, too, stop nesting at some depth (HTML leaves it to them); deeper elements become siblings. */
const MAX_NESTING = 1000;

/** Calls the handlers for what stands in `markup`, in document order. */
export function scanMarkup(markup: string, { onOpen, onText, onClose }: MarkupHandlers): void {
  const length = markup.length;
  let at = 0;

  /** Attributes of the tag at hand. */
  let attributes = 0;
  const attributeNames: string[] = [];
  const values: string[] = [];
  const tag: Tag = {
    name: '',
    position: 0,
    get: (attribute) => {
      for (let i = 0; i < attributes; i++) if (attributeNames[i] === attribute) return values[i];
    },
  };
  let selfClosing = false;

  const open: string[] = [];
  const openOf = new Map<string, number>();
  /** Depths of `svg` and `math` that are open, and of what holds HTML in them. */
  const foreign: { depth: number; holdsHtml: boolean }[] = [];
  const inForeign = () => foreign.length > 0 && !foreign[foreign.length - 1].holdsHtml;

  const close = () => {
    const name = open.pop()!;
    openOf.set(name, openOf.get(name)! - 1);
    if (foreign.length && foreign[foreign.length - 1].depth > open.length) foreign.pop();
    onClose(name);
  };
  const closeDownTo = (depth: number) => {
    while (open.length > depth) close();
  };

  const closeImplied = (name: string) => {
    for (const { ends, within } of closings.get(name) ?? []) {
      if (!ends.some((ended) => openOf.get(ended))) continue;
      for (let i = open.length - 1; i >= 0 && !within.has(open[i]); i--) {
        if (!ends.includes(open[i])) continue;
        closeDownTo(i);
        break;
      }
    }
  };

  const openElement = () => {
    const { name } = tag;
    const html = !inForeign();
    if (html) closeImplied(name);
    onOpen(tag);
    if (html ? voidElements.has(name) : selfClosing) return onClose(name);
    if (open.length >= MAX_NESTING) close();
    open.push(name);
    openOf.set(name, (openOf.get(name) ?? 0) + 1);
    if (html ? name === 'svg' || name === 'math' : htmlInForeign.has(name))
      foreign.push({ depth: open.length, holdsHtml: !html });
    if (html && name === 'plaintext') {
      onText(markup.slice(at));
      at = length;
    } else if (html && textElements.has(name)) readTextElement(name);
  };

  const endElement = (name: string) => {
    if (!openOf.get(name)) {
      // These two are elements even where nothing is open to end.
      if (name === 'p' || name === 'br') {
        attributes = 0;
        tag.name = name;
        onOpen(tag);
        onClose(name);
      }
      return;
    }
    closeDownTo(open.lastIndexOf(name));
  };

  /** The text of an element that holds nothing else, up to its end tag or the end of the document. */
  const readTextElement = (name: string) => {
    let end = at;
    for (;;) {
      end = markup.indexOf('</', end);
      if (end < 0) end = length;
      const after = markup.charCodeAt(end + 2 + name.length);
      if (end === length || ((isSpace(after) || after === SLASH || after === GT) && markup.slice(end + 2, end + 2 + name.length).toLowerCase() === name)) break; // prettier-ignore
      end += 2;
    }
    if (end > at) onText(markup.slice(at, end));
    at = end;
  };

  /** Reads the name and the attributes of a tag. @returns false when the document ends within it */
  const readTag = (): boolean => {
    const start = at;
    let code = 0;
    while (at < length && !isSpace((code = markup.charCodeAt(at))) && code !== SLASH && code !== GT) at++;
    tag.name = nameOf(markup.slice(start, at));
    attributes = 0;
    selfClosing = false;
    for (;;) {
      while (at < length && (isSpace((code = markup.charCodeAt(at))) || code === SLASH)) {
        selfClosing = code === SLASH;
        at++;
      }
      if (at >= length) return false;
      if (code === GT) {
        at++;
        return true;
      }
      selfClosing = false;
      if (!readAttribute()) return false;
    }
  };

  const readAttribute = (): boolean => {
    const start = at;
    // An equals sign that stands first belongs to the name.
    for (at++; at < length; at++) {
      const code = markup.charCodeAt(at);
      if (code === EQUALS || code === SLASH || code === GT || isSpace(code)) break;
    }
    const name = nameOf(markup.slice(start, at));
    let value = '';
    let next = at;
    while (next < length && isSpace(markup.charCodeAt(next))) next++;
    if (markup.charCodeAt(next) === EQUALS) {
      at = next + 1;
      while (at < length && isSpace(markup.charCodeAt(at))) at++;
      const quote = markup[at];
      if (quote === '"' || quote === "'") {
        const end = markup.indexOf(quote, at + 1);
        if (end < 0) at = length;
        else {
          value = markup.slice(at + 1, end);
          at = end + 1;
        }
      } else {
        const from = at;
        while (at < length && !isSpace(markup.charCodeAt(at)) && markup.charCodeAt(at) !== GT) at++;
        value = markup.slice(from, at);
      }
    }
    if (at >= length) return false;
    if (tag.get(name) === undefined) {
      attributeNames[attributes] = name;
      values[attributes++] = value;
    }
    return true;
  };

  const past = (mark: string, from: number) => {
    const found = markup.indexOf(mark, from);
    return found < 0 ? length : found + mark.length;
  };

  /** Passes over a comment, a doctype or what is neither; `at` stands after `<!`. */
  const readDeclaration = () => {
    if (markup.startsWith('--', at)) {
      // `<!-->` and `<!--->` are whole comments.
      const closed = /-->|--!>/g;
      closed.lastIndex = at;
      if (markup.startsWith('>', at + 2)) at += 3;
      else if (markup.startsWith('->', at + 2)) at += 4;
      else {
        closed.lastIndex = at + 2;
        at = closed.exec(markup) ? closed.lastIndex : length;
      }
    } else if (inForeign() && markup.startsWith('[CDATA[', at)) {
      const end = past(']]>', at + 7);
      onText(markup.slice(at + 7, end === length && !markup.endsWith(']]>') ? end : end - 3));
      at = end;
    } else at = past('>', at);
  };

  while (at < length) {
    let lt = markup.indexOf('<', at);
    let next = 0;
    // A `<` that begins nothing is text.
    while (lt >= 0) {
      next = markup.charCodeAt(lt + 1);
      if (isLetter(next) || next === SLASH || next === BANG || next === QUESTION) break;
      lt = markup.indexOf('<', lt + 1);
    }
    if (lt < 0) lt = length;
    if (lt > at) onText(markup.slice(at, lt));
    if (lt === length) break;
    at = lt + 1;
    tag.position = lt;
    if (next === BANG) {
      at++;
      readDeclaration();
    } else if (next === QUESTION) at = past('>', at);
    else if (next === SLASH) {
      at++;
      if (isLetter(markup.charCodeAt(at))) {
        if (!readTag()) break;
        endElement(tag.name);
      } else at = past('>', at);
    } else {
      if (!readTag()) break;
      openElement();
    }
  }
  closeDownTo(0);
}
