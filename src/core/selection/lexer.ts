import { selectionFault } from '../errors';

export type TokenKind = 'word' | 'text' | 'number' | 'operator' | 'bracket' | 'end';

export interface Token {
  kind: TokenKind;
  /** The word, the text without its quotes, the number or the sign. */
  value: string;
  /** Where it stands, in characters from 0. */
  at: number;
  length: number;
}

/** A fault of a selection: where it is, and what to do about it. */
export interface SelectionFault {
  message: string;
  at: number;
  length: number;
}

const pieces = /\s*(?:([A-Za-z_][A-Za-z0-9_-]*)|"((?:[^"\\]|\\.)*)"|(-?\d+(?:\.\d+)?)|(<=|>=|!=|=|<|>)|([(),.]))/y;

/** Splits a selection into tokens. Within a quoted text `\"` is a quote and `\\` a backslash. */
export function tokenize(text: string): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  while (text.slice(at).trim()) {
    pieces.lastIndex = at;
    const found = pieces.exec(text);
    if (!found) {
      const start = at + (text.slice(at).length - text.slice(at).trimStart().length);
      const open = text[start] === '"';
      throw selectionFault(
        open ? 'This quotation is not closed.' : `“${text[start]}” has no meaning here.`,
        start,
        open ? text.length - start : 1,
      );
    }
    const [whole, word, quoted, number, operator, bracket] = found;
    const length = whole.trimStart().length;
    const add = (kind: TokenKind, value: string) =>
      tokens.push({ kind, value, at: at + whole.length - length, length });
    if (word !== undefined) add('word', word);
    else if (quoted !== undefined) add('text', quoted.replace(/\\(.)/g, '$1'));
    else if (number !== undefined) add('number', number);
    else if (operator !== undefined) add('operator', operator);
    else add('bracket', bracket);
    at = pieces.lastIndex;
  }
  tokens.push({ kind: 'end', value: '', at: text.length, length: 0 });
  return tokens;
}
