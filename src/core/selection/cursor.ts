/** A place in a selection that is being read. */
import { selectionFault } from '../errors';
import type { Catalogue } from './catalogue';
import { tokenize } from './lexer';
import type { Token } from './lexer';

/** One thing that may stand at a place. */
export interface Offer {
  text: string;
  about: string;
}
/** Is told what may stand where the text ends; with the name of a fact, its values too. */
export type OfferTo = (offers: Offer[], fact?: string) => void;

export interface Cursor {
  readonly tokens: readonly Token[];
  /** The number of the token at hand. */
  next: number;
  /** How deep brackets are nested here. */
  depth: number;
  /** What can be asked here: within a step of links, facts of pages. */
  catalogue: Catalogue;
  readonly offer: OfferTo;
}

/** @throws selection where the text cannot be split into tokens */
export const cursorAt = (text: string, catalogue: Catalogue, offer: OfferTo): Cursor => ({
  tokens: tokenize(text),
  next: 0,
  depth: 0,
  catalogue,
  offer,
});

export const peek = ({ tokens, next }: Cursor): Token => tokens[next];
export const take = (cursor: Cursor): Token => cursor.tokens[cursor.next++];
export const isWord = (cursor: Cursor, word: string): boolean =>
  peek(cursor).kind === 'word' && peek(cursor).value === word;
export const isSign = (cursor: Cursor, sign: string): boolean =>
  peek(cursor).kind === 'bracket' && peek(cursor).value === sign;
export const isAtEnd = (cursor: Cursor): boolean => peek(cursor).kind === 'end';

/** @throws selection */
export function fail(
  cursor: Cursor,
  message: string,
  { at, length }: Pick<Token, 'at' | 'length'> = peek(cursor),
): never {
  throw selectionFault(message, at, length);
}

/** Says what may stand here, where the text ends. */
export function may(cursor: Cursor, about: string, ...texts: string[]): void {
  if (isAtEnd(cursor)) cursor.offer(texts.map((text) => ({ text, about })));
}

/** Takes a word when it is there. */
export function takeWord(cursor: Cursor, word: string): boolean {
  if (!isWord(cursor, word)) return false;
  take(cursor);
  return true;
}
export function expectWord(cursor: Cursor, word: string): void {
  may(cursor, '', word);
  if (!takeWord(cursor, word)) fail(cursor, `Expected “${word}” here.`);
}
export function expectSign(cursor: Cursor, sign: string): void {
  may(cursor, '', sign);
  if (!isSign(cursor, sign)) fail(cursor, `Expected “${sign}” here.`);
  take(cursor);
}
