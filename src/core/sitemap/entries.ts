/** Entries of a sitemap, and how plain ones are read without a parser of XML. */

/** Both are 1-based. */
export interface Place {
  line: number;
  column: number;
}
/** What stands in an element, and where that begins. */
export interface Element extends Place {
  text: string;
}
/** An entry of a sitemap. */
export interface Entry {
  at: Element;
  loc: Element | null;
  lastmod: Element | null;
  priority: Element | null;
  changefreq: Element | null;
}
export const ENTRY_END = '</url>';
const LINE_FEED = 10;

/** Entries of a URL set as nearly all are: elements without attributes in their usual order, with ASCII in them. */
const plainEntry = (() => {
  const space = '((?:[ \\t\\n]|\\r\\n)*)';
  // XML forbids `]]>` in text.
  const text = "([!-%'-;=?-\\\\^-~]*(?:&amp;[!-%'-;=?-\\\\^-~]*)*)";
  const field = (name: string) => `${space}<${name}>${text}</${name}>`;
  const others = ['lastmod', 'changefreq', 'priority'].map((name) => `(?:${field(name)})?`).join('');
  return new RegExp(`${space}<url>${field('loc')}${others}${space}${ENTRY_END}`, 'y');
})();

/**
 * Reads the plain entries that stand one after the other in a text.
 * @param place of the first character
 * @returns where they end, and white space that takes their room
 */
export function plainEntries(text: string, from: number, place: Place, take: (entry: Entry) => void) {
  let end = from;
  let { line, column } = place;
  const pass = (space: string) => {
    for (let i = 0; i < space.length; i++)
      if (space.charCodeAt(i) === LINE_FEED) {
        line++;
        column = 1;
      } else column++;
  };
  const element = (space: string | undefined, name: string, raw: string | undefined): Element | null => {
    if (space === undefined || raw === undefined) return null;
    pass(space);
    const found = { line, column, text: raw.includes('&') ? raw.replaceAll('&amp;', '&') : raw };
    column += 2 * name.length + 5 + raw.length;
    return found;
  };
  for (;;) {
    plainEntry.lastIndex = end;
    const found = plainEntry.exec(text);
    if (!found) break;
    pass(found[1]);
    const at = { line, column, text: '' };
    column += '<url>'.length;
    const loc = element(found[2], 'loc', found[3]);
    const lastmod = element(found[4], 'lastmod', found[5]);
    const changefreq = element(found[6], 'changefreq', found[7]);
    const priority = element(found[8], 'priority', found[9]);
    pass(found[10]);
    column += ENTRY_END.length;
    take({ at, loc, lastmod, changefreq, priority });
    end = plainEntry.lastIndex;
  }
  const lines = line - place.line;
  const blank = '\n'.repeat(lines) + ' '.repeat(lines ? column - 1 : column - place.column);
  return { end, blank };
}
