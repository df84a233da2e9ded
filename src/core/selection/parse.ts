/** Reads selections, and says what may stand in one, by the grammar of grammar.ts. */
import { isError } from '../errors';
import { linkCatalogue, pageCatalogue } from './catalogue';
import type { Catalogue } from './catalogue';
import { cursorAt } from './cursor';
import type { Offer } from './cursor';
import { readSelection } from './grammar';
import type { SelectionFault } from './lexer';
import type { Selection } from './selection';

export type ParsedSelection = { ok: true; selection: Selection } | { ok: false; fault: SelectionFault };

const MAX_LENGTH = 4000;

function parseWith(
  text: string,
  catalogue: Catalogue,
  offer: Parameters<typeof cursorAt>[2] = () => {},
): ParsedSelection {
  if (text.length > MAX_LENGTH) {
    const message = `A selection may be ${MAX_LENGTH} characters long.`;
    return { ok: false, fault: { message, at: MAX_LENGTH, length: 1 } };
  }
  try {
    return { ok: true, selection: readSelection(cursorAt(text, catalogue, offer)) };
  } catch (error) {
    if (!isError(error, 'selection')) throw error;
    return { ok: false, fault: { message: error.message, ...error.params } };
  }
}

/**
 * Parses a selection of pages (docs/SELECTION.md). The empty text selects everything.
 * @returns the selection, or the first fault with its place and what was expected
 */
export const parseSelection = (text: string): ParsedSelection => parseWith(text, pageCatalogue);

/** As {@link parseSelection}, for links. */
export const parseLinkSelection = (text: string): ParsedSelection => parseWith(text, linkCatalogue);

export interface Completion {
  /** What is replaced: from here to the place of the cursor. */
  from: number;
  offers: Offer[];
}

const MAX_OFFERS = 200;

/**
 * What may stand at the cursor, for an editor.
 * @param at the cursor, in characters
 * @param valuesOf known values of a fact of texts, for quotations
 */
export function completeSelection(
  text: string,
  at: number,
  valuesOf: (fact: string) => readonly string[] = () => [],
  catalogue: Catalogue = pageCatalogue,
): Completion {
  const before = text.slice(0, at);
  const begun = /(?:"[^"]*|[A-Za-z_][A-Za-z0-9_-]*)$/.exec(before)?.[0] ?? '';
  const from = at - begun.length;
  const offers: Offer[] = [];
  parseWith(before.slice(0, from), catalogue, (more, fact) => {
    offers.push(...more);
    if (fact !== undefined)
      offers.push(...valuesOf(fact).map((value) => ({ text: JSON.stringify(value), about: fact })));
  });
  const wanted = begun.toLowerCase();
  const fitting = offers.filter(
    ({ text }, i) => text.toLowerCase().startsWith(wanted) && offers.findIndex((other) => other.text === text) === i,
  );
  return { from, offers: fitting.slice(0, MAX_OFFERS) };
}
