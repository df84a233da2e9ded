import { reaches } from '../reach';
import { factNames, factOf, isFactName, sources } from '../snapshot';
import type { FactName } from '../snapshot';
import { verdicts } from '../verdict';
import { Fault, tokenize } from './lexer';
import type { SelectionFault, Token } from './lexer';

export const orderings = ['=', '!=', '<', '<=', '>', '>='] as const;
export const textTests = ['has', 'starts', 'ends'] as const;
export type Comparison = (typeof orderings)[number] | (typeof textTests)[number];

/** A selection, parsed and checked against the facts. */
export type Selection =
  | { op: 'all' }
  | { op: 'and' | 'or'; left: Selection; right: Selection }
  | { op: 'not'; of: Selection }
  | { op: 'flag'; fact: FactName }
  | { op: 'compare'; fact: FactName; comparison: Comparison; value: string | number }
  | { op: 'in'; fact: FactName; values: (string | number)[] }
  | { op: 'unknown'; fact: FactName }
  | { op: 'seen'; source: string };

export type ParsedSelection = { ok: true; selection: Selection } | { ok: false; fault: SelectionFault };

const quoted = (words: readonly string[]) => words.map((word) => `“${word}”`).join(', ');
const isNumeric = (fact: FactName) => factOf(fact).type === 'number';

function parser(text: string) {
  const tokens = tokenize(text);
  let next = 0;
  const peek = () => tokens[next];
  const isWord = (word: string) => peek().kind === 'word' && peek().value === word;
  const isSign = (sign: string) => peek().kind === 'bracket' && peek().value === sign;
  const fail = (message: string, { at, length }: Token = peek()): never => {
    throw new Fault(message, at, length);
  };
  const take = () => tokens[next++];
  const expectSign = (sign: string) => (isSign(sign) ? take() : fail(`Expected “${sign}” here.`));

  const value = (fact: FactName): string | number => {
    const token = peek();
    if (isNumeric(fact)) {
      if (token.kind !== 'number') fail(`Expected a number to compare ${fact} with.`);
      return Number(take().value);
    }
    const { values } = factOf(fact);
    if (token.kind !== 'text' && token.kind !== 'word' && token.kind !== 'number')
      fail(`Expected ${values ? `one of ${quoted(values)}` : 'a text in quotes'} here.`);
    if (values && !values.includes(token.value))
      fail(`${fact} is never “${token.value}”. It is one of ${quoted(values)}.`);
    if (!values && token.kind === 'word') fail(`Put the text in quotes: "${token.value}".`);
    return take().value;
  };

  const comparison = (fact: FactName): Selection => {
    const { type } = factOf(fact);
    const token = peek();
    if (isWord('is')) {
      take();
      const negated = isWord('not') && take();
      if (!isWord('unknown')) fail('Expected “unknown” here.');
      take();
      return negated ? { op: 'not', of: { op: 'unknown', fact } } : { op: 'unknown', fact };
    }
    if (type === 'flag') return { op: 'flag', fact };
    if (isWord('in')) {
      take();
      expectSign('(');
      const values = [value(fact)];
      while (isSign(',')) {
        take();
        values.push(value(fact));
      }
      expectSign(')');
      return { op: 'in', fact, values };
    }
    const known: readonly string[] =
      type === 'text' ? [...orderings, ...textTests] : type === 'number' ? orderings : ['=', '!='];
    if ((token.kind === 'operator' || token.kind === 'word') && known.includes(token.value)) {
      take();
      return { op: 'compare', fact, comparison: token.value as Comparison, value: value(fact) };
    }
    return fail(`Expected a comparison of ${fact} here: ${[...known, 'in (…)', 'is unknown'].join('  ')}`);
  };

  const test = (): Selection => {
    const token = peek();
    if (token.kind !== 'word')
      fail(token.kind === 'end' ? 'Expected a test here, such as depth > 3.' : 'Expected a test here.');
    take();
    const word = token.value;
    if (word === 'seen') {
      if (isWord('in')) take();
      else fail('Expected “in” and a source here.');
      const source = peek();
      if (!(sources as readonly string[]).includes(source.value)) fail(`Expected a source here: ${quoted(sources)}.`);
      take();
      return { op: 'seen', source: source.value };
    }
    if (isFactName(word)) return comparison(word);
    if ((verdicts as readonly string[]).includes(word))
      return { op: 'compare', fact: 'verdict', comparison: '=', value: word };
    if ((reaches as readonly string[]).includes(word))
      return { op: 'compare', fact: 'reach', comparison: '=', value: word };
    const near = [...factNames, ...verdicts, ...reaches].filter((name) => name.startsWith(word.slice(0, 3)));
    return fail(`“${word}” is not a fact${near.length ? `. Did you mean ${quoted(near.slice(0, 4))}?` : '.'}`, token);
  };

  const negation = (): Selection => {
    if (isWord('not')) {
      take();
      return { op: 'not', of: negation() };
    }
    if (isSign('(')) {
      take();
      const inner = either();
      expectSign(')');
      return inner;
    }
    return test();
  };
  const chain = (op: 'and' | 'or', part: () => Selection) => (): Selection => {
    let left = part();
    while (isWord(op)) {
      take();
      left = { op, left, right: part() };
    }
    return left;
  };
  const both = chain('and', negation);
  const either = chain('or', both);

  if (peek().kind === 'end') return { op: 'all' } as const;
  const selection = either();
  if (peek().kind !== 'end') fail('Expected “and”, “or” or the end here.');
  return selection;
}

const MAX_LENGTH = 4000;

/**
 * Parses a selection (docs/SELECTION.md). The empty text selects everything.
 * @returns the selection, or the first fault with its place and what was expected
 */
export function parseSelection(text: string): ParsedSelection {
  if (text.length > MAX_LENGTH)
    return {
      ok: false,
      fault: { message: `A selection may be ${MAX_LENGTH} characters long.`, at: MAX_LENGTH, length: 1 },
    };
  try {
    return { ok: true, selection: parser(text) };
  } catch (error) {
    if (!(error instanceof Fault)) throw error;
    return { ok: false, fault: { message: error.message, at: error.at, length: error.length } };
  }
}
