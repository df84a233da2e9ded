/** What the characters of a document are, for whoever shows its source in colours. */

/** `raw` is the content of scripts and styles, `declaration` a doctype or processing instruction. */
export type SourcePart = 'tag' | 'attribute' | 'value' | 'comment' | 'declaration' | 'raw' | 'reference';

/** A run of characters of one kind; what is in none is text. */
export interface SourceSpan {
  from: number;
  to: number;
  part: SourcePart;
}

const rawElement = /^(script|style|textarea|title|xmp|iframe|noembed|noframes)$/i;
// Spaces by HTML: other bytes that Unicode calls spaces may be half a character here.
const tagStart = /<(\/?)([a-z][^\t\n\f\r />]*)/iy;
const attributeName = /[^\t\n\f\r "'<>/=]+|["'<]/y;
const valueStart = /[\t\n\f\r ]*=[\t\n\f\r ]*/y;
const bareValue = /[^\t\n\f\r >]+/y;
const reference = /&(?:#\d+|#x[\da-f]+|[a-z][\da-z]*);?/giy;

/**
 * Tells the parts of a document in order, without open elements: what a reader sees is right wherever the document is,
 * and a broken one is coloured as far as it goes. Takes time linear in the text.
 * @param until where to stop
 */
export function sourceSpans(markup: string, until = markup.length): SourceSpan[] {
  const spans: SourceSpan[] = [];
  const add = (from: number, to: number, part: SourcePart) => {
    if (to > from) spans.push({ from, to, part });
    return to;
  };
  const upTo = (mark: string, from: number) => {
    const found = markup.indexOf(mark, from);
    return found < 0 ? markup.length : found + mark.length;
  };
  const at = (pattern: RegExp, from: number) => {
    pattern.lastIndex = from;
    return pattern.exec(markup);
  };
  /** Reads the attributes of a tag. @returns where it ends */
  const attributes = (from: number): number => {
    let place = from;
    while (place < markup.length) {
      const char = markup[place];
      if (char === '>') return add(place, place + 1, 'tag');
      if (char === '/' || /[\t\n\f\r ]/.test(char)) {
        place += 1;
        continue;
      }
      const name = at(attributeName, place);
      place = add(place, place + (name?.[0].length ?? 1), 'attribute');
      const equals = at(valueStart, place);
      if (!equals) continue;
      place += equals[0].length;
      const quote = markup[place];
      const end =
        quote === '"' || quote === "'" ? upTo(quote, place + 1) : place + (at(bareValue, place)?.[0].length ?? 0);
      place = add(place, end, 'value');
    }
    return place;
  };

  let place = 0;
  while (place < until) {
    const next = markup.indexOf('<', place);
    const end = next < 0 ? markup.length : next;
    for (let sign = markup.indexOf('&', place); sign >= 0 && sign < end; sign = markup.indexOf('&', sign + 1)) {
      const found = at(reference, sign);
      if (found) add(sign, sign + found[0].length, 'reference');
    }
    if (next < 0) break;
    if (markup.startsWith('<!--', next)) place = add(next, upTo('-->', next + 4), 'comment');
    else if (markup[next + 1] === '!' || markup[next + 1] === '?') place = add(next, upTo('>', next), 'declaration');
    else {
      const tag = at(tagStart, next);
      if (!tag) {
        place = next + 1;
        continue;
      }
      place = attributes(add(next, next + tag[0].length, 'tag'));
      if (tag[1] || !rawElement.test(tag[2]) || markup[place - 2] === '/') continue;
      const close = new RegExp(`</${tag[2]}`, 'gi');
      close.lastIndex = place;
      place = add(place, close.exec(markup)?.index ?? markup.length, 'raw');
    }
  }
  return spans;
}
