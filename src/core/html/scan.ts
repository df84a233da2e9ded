/**
 * Reads markup in one pass, as a browser would read it: tags and text as the HTML Standard tokenizes them (§13.2.5,
 * "Tokenization"), open elements as far as §13.2.6 decides what an element stands in. It jumps from one `<`
 * to the next, which is what makes it quick, and takes time linear in the text.
 */
import { ownCopy } from '../strings';
import {
  closings,
  ELEMENT_NUMBERS,
  elementNumber,
  elementSet,
  htmlInForeign,
  textElements,
  voidElements,
} from './elements';

/** A start tag. Holds only while its handler runs. */
export interface Tag {
  /** In lower case. */
  name: string;
  /** The number of the element, see `elementNumber`. */
  number: number;
  /** Where its `<` stands. */
  position: number;
  /** An attribute as written, by its name in lower case; the first of several counts. */
  get: (attribute: string) => string | undefined;
}

export interface MarkupHandlers {
  onOpen: (tag: Tag) => void;
  /** Text as written, and where it begins; one run may come in several pieces. */
  onText: (raw: string, position: number) => void;
  /** Also for void elements, and for those whose end is implied. */
  onClose: (name: string, number: number) => void;
}

const GT = 62;
const SLASH = 47;
const BANG = 33;
const QUESTION = 63;
const EQUALS = 61;

const isSpace = (code: number) => code === 32 || code === 10 || code === 9 || code === 13 || code === 12;
const isLetter = (code: number) => (code >= 97 && code <= 122) || (code >= 65 && code <= 90);
/** A name of a tag or an attribute: in lower case, one string for all its spellings, and the number of the element. */
interface Name {
  text: string;
  number: number;
}
/** By their spellings. */
const names = new Map<string, Name>();
const MAX_NAMES = 5000;
const MAX_NAME_LENGTH = 40;

function nameOf(written: string): Name {
  const known = names.get(written);
  if (known !== undefined) return known;
  const lower = written.toLowerCase();
  const number = elementNumber(lower);
  if (written.length > MAX_NAME_LENGTH) return { text: lower, number };
  if (names.size >= MAX_NAMES) names.clear();
  const name = { text: ownCopy(lower), number };
  names.set(ownCopy(written), name);
  return name;
}

const foreignRoots = elementSet('svg math');
/** These two are elements even where nothing is open to end. */
const endsAlone = elementSet('p br');

/** Names of more attributes than this are not remembered: no tag of a person has so many. */
const FEW_ATTRIBUTES = 64;

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
    number: 0,
    position: 0,
    get: (attribute) => {
      for (let i = 0; i < attributes; i++) if (attributeNames[i] === attribute) return values[i];
    },
  };
  let selfClosing = false;

  /** Names and numbers of the open elements, and how many of each number are open. */
  const open: string[] = [];
  const openNumbers: number[] = [];
  const openOf = new Uint16Array(ELEMENT_NUMBERS);
  /** Depths of `svg` and `math` that are open, and of what holds HTML in them. */
  const foreign: { depth: number; holdsHtml: boolean }[] = [];
  const inForeign = () => foreign.length > 0 && !foreign[foreign.length - 1].holdsHtml;

  const close = () => {
    const name = open.pop()!;
    const number = openNumbers.pop()!;
    openOf[number]--;
    if (foreign.length && foreign[foreign.length - 1].depth > open.length) foreign.pop();
    onClose(name, number);
  };
  const closeDownTo = (depth: number) => {
    while (open.length > depth) close();
  };

  const closeImplied = (number: number) => {
    for (const { ends, within } of closings[number]) {
      if (!ends.some((ended) => openOf[ended])) continue;
      for (let i = openNumbers.length - 1; i >= 0 && !within[openNumbers[i]]; i--) {
        if (!ends.includes(openNumbers[i])) continue;
        closeDownTo(i);
        break;
      }
    }
  };

  const openElement = () => {
    const { name, number } = tag;
    const html = !inForeign();
    if (html) closeImplied(number);
    onOpen(tag);
    if (html ? voidElements[number] : selfClosing) return onClose(name, number);
    if (open.length >= MAX_NESTING) close();
    open.push(name);
    openNumbers.push(number);
    openOf[number]++;
    if (html ? foreignRoots[number] : htmlInForeign[number]) foreign.push({ depth: open.length, holdsHtml: !html });
    if (html && textElements[number]) readTextElement(name);
  };

  const endElement = (name: string, number: number) => {
    // All elements that no set names are counted together.
    const last = openOf[number] ? open.lastIndexOf(name) : -1;
    if (last >= 0) closeDownTo(last);
    else if (endsAlone[number]) {
      attributes = 0;
      onOpen(tag);
      onClose(name, number);
    }
  };

  /** The text of an element that holds nothing else, up to its end tag or the end of the document. */
  const readTextElement = (name: string) => {
    let end = name === 'plaintext' ? length : at;
    while (end < length) {
      end = markup.indexOf('</', end);
      if (end < 0) end = length;
      const after = markup.charCodeAt(end + 2 + name.length);
      if (
        end === length ||
        ((isSpace(after) || after === SLASH || after === GT) &&
          markup.slice(end + 2, end + 2 + name.length).toLowerCase() === name)
      )
        break;
      end += 2;
    }
    if (end > at) onText(markup.slice(at, end), at);
    at = end;
  };

  /** Reads the name and the attributes of a tag. @returns false when the document ends within it */
  const readTag = (): boolean => {
    const start = at;
    let code = 0;
    while (at < length && !isSpace((code = markup.charCodeAt(at))) && code !== SLASH && code !== GT) at++;
    const { text, number } = nameOf(markup.slice(start, at));
    tag.name = text;
    tag.number = number;
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
    const written = markup.slice(start, at);
    const name = attributes < FEW_ATTRIBUTES ? nameOf(written).text : written.toLowerCase();
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
    // Of several with one name the first is found.
    attributeNames[attributes] = name;
    values[attributes++] = value;
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
      onText(markup.slice(at + 7, end === length && !markup.endsWith(']]>') ? end : end - 3), at + 7);
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
    if (lt > at) onText(markup.slice(at, lt), at);
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
        endElement(tag.name, tag.number);
      } else at = past('>', at);
    } else {
      if (!readTag()) break;
      openElement();
    }
  }
  closeDownTo(0);
}
