import { comparedFacts, isChangeFact, isComparedFact, isLinkChangeFact, sources } from '../facts';
import type { ComparedFact } from '../facts';
import { importKinds, isDateColumn } from '../imports/source';
import type { ImportKind } from '../imports/source';
import { readW3cDate } from '../sitemap/dates';
import { linkCatalogue, pageCatalogue } from './catalogue';
import type { Catalogue } from './catalogue';
import { tokenize } from './lexer';
import type { SelectionFault, Token } from './lexer';
import { patternMatcher } from './pattern';
import { isError, selectionFault } from '../errors';

export const orderings = ['=', '!=', '<', '<=', '>', '>='] as const;
export const textTests = ['has', 'starts', 'ends', 'matches'] as const;
export type Operator = (typeof orderings)[number] | (typeof textTests)[number];

/** Steps along the links of a visitor. `from` and `to` are about links: the pages they stand on and lead to. */
export type Step = 'linked from' | 'links to' | 'only through' | 'from' | 'to';

/** A comparison of a number that an import gives. */
export interface ImportedNumber {
  column: string;
  comparison: (typeof orderings)[number];
  value: number;
}

/** A selection, parsed and checked against the facts. */
export type Selection =
  | { op: 'all' }
  | { op: 'and' | 'or'; left: Selection; right: Selection }
  | { op: 'not'; of: Selection }
  | { op: 'flag'; fact: string }
  | { op: 'compare'; fact: string; comparison: Operator; value: string | number }
  | { op: 'in'; fact: string; values: (string | number)[] }
  | { op: 'unknown'; fact: string }
  | { op: 'seen'; source: string }
  /** What an imported source knows, or a number that it gives. */
  | { op: 'imported'; kind: ImportKind; name: string; at: number; length: number; number: ImportedNumber | null }
  /** What the earlier crawl told of the page. */
  | { op: 'was'; of: Selection }
  /** A fact that is another than in the earlier crawl. */
  | { op: 'differs'; differing: ComparedFact }
  | { op: 'step'; step: Step; of: Selection }
  | { op: 'within'; clicks: number; of: Selection };

export type ParsedSelection = { ok: true; selection: Selection } | { ok: false; fault: SelectionFault };

/** One thing that may stand at a place. */
export interface Offer {
  text: string;
  about: string;
}

const quoted = (words: readonly string[]) => words.map((word) => `“${word}”`).join(', ');
const MAX_DEPTH = 200;
const MAX_CLICKS = 1000;

/**
 * Reads a selection by recursive descent.
 * @param offer is told what may stand where the text ends
 */
function read(text: string, outer: Catalogue, offer: (offers: Offer[], fact?: string) => void): Selection {
  const tokens = tokenize(text);
  let next = 0;
  let depth = 0;
  let catalogue = outer;
  const peek = () => tokens[next];
  const isWord = (word: string) => peek().kind === 'word' && peek().value === word;
  const isSign = (sign: string) => peek().kind === 'bracket' && peek().value === sign;
  const fail = (message: string, { at, length }: Pick<Token, 'at' | 'length'> = peek()): never => {
    throw selectionFault(message, at, length);
  };
  const take = () => tokens[next++];
  const may = (about: string, ...texts: string[]) => {
    if (peek().kind === 'end') offer(texts.map((one) => ({ text: one, about })));
  };
  const expectSign = (sign: string) => {
    may('', sign);
    return isSign(sign) ? take() : fail(`Expected “${sign}” here.`);
  };
  const expectWord = (word: string) => {
    may('', word);
    return isWord(word) ? take() : fail(`Expected “${word}” here.`);
  };
  const isNumeric = (fact: string) => catalogue.facts[fact].type === 'number' || catalogue.facts[fact].type === 'ratio';

  const number = (what: string): number => {
    if (peek().kind !== 'number') fail(`Expected ${what} here.`);
    if (peek().value.replace(/[-.]/g, '').length > 15) fail('This number has too many digits.');
    return Number(take().value);
  };

  const value = (fact: string): string | number => {
    const token = peek();
    if (isNumeric(fact)) return number(`a number to compare ${fact} with`);
    const { values } = catalogue.facts[fact];
    if (values) may(catalogue.facts[fact].label, ...values);
    else if (token.kind === 'end') offer([], fact);
    if (token.kind !== 'text' && token.kind !== 'word' && token.kind !== 'number')
      fail(`Expected ${values ? `one of ${quoted(values)}` : 'a text in quotes'} here.`);
    if (values && !values.includes(token.value))
      fail(`${fact} is never “${token.value}”. It is one of ${quoted(values)}.`);
    if (!values && token.kind === 'word') fail(`Put the text in quotes: "${token.value}".`);
    return take().value;
  };

  const checkPattern = (token: Token): void => {
    try {
      patternMatcher(token.value);
    } catch (error) {
      if (!isError(error, 'selection')) throw error;
      // The place within the pattern is that within the text, unless quotes were escaped before it.
      fail(error.message, { at: token.at + 1 + error.params.at, length: error.params.length });
    }
  };

  const comparison = (fact: string): Selection => {
    const { type } = catalogue.facts[fact];
    const known: readonly string[] =
      type === 'text'
        ? [...orderings, ...textTests]
        : type === 'set'
          ? ['has']
          : isNumeric(fact)
            ? orderings
            : ['=', '!='];
    may(
      '',
      ...(type === 'flag' ? [] : known),
      ...(type === 'flag' || type === 'set' ? [] : ['in (']),
      'is unknown',
      'is not unknown',
    );
    const token = peek();
    if (isWord('is')) {
      take();
      const negated = isWord('not') && take();
      expectWord('unknown');
      return negated ? { op: 'not', of: { op: 'unknown', fact } } : { op: 'unknown', fact };
    }
    if (type === 'flag') return { op: 'flag', fact };
    if (isWord('in') && type !== 'set') {
      take();
      expectSign('(');
      const values = [value(fact)];
      while (isSign(',')) {
        take();
        values.push(value(fact));
      }
      may('', ',');
      expectSign(')');
      return { op: 'in', fact, values };
    }
    if ((token.kind === 'operator' || token.kind === 'word') && known.includes(token.value)) {
      take();
      if (token.value === 'matches' && peek().kind === 'text') checkPattern(peek());
      return { op: 'compare', fact, comparison: token.value as Operator, value: value(fact) };
    }
    const choices = [...known, ...(type === 'set' ? [] : ['in (…)']), 'is unknown'];
    return fail(`Expected a comparison of ${fact} here: ${choices.join('  ')}`);
  };

  /** Pages in brackets, of which a step is taken. */
  const inner = (): Selection => {
    const before = catalogue;
    catalogue = pageCatalogue;
    expectSign('(');
    const of = either();
    may('', ')');
    expectSign(')');
    catalogue = before;
    return of;
  };

  const step = (): Selection | null => {
    if (catalogue.of === 'links') {
      for (const word of ['from', 'to'] as const)
        if (isWord(word)) {
          take();
          return { op: 'step', step: word, of: inner() };
        }
      return null;
    }
    for (const [first, second] of [
      ['linked', 'from'],
      ['links', 'to'],
      ['only', 'through'],
    ] as const)
      if (isWord(first)) {
        take();
        expectWord(second);
        return { op: 'step', step: `${first} ${second}` as Step, of: inner() };
      }
    if (!isWord('within')) return null;
    take();
    const token = peek();
    const clicks = number('a number of clicks');
    if (!Number.isInteger(clicks) || clicks < 0 || clicks > MAX_CLICKS)
      fail(`Expected a whole number of clicks up to ${MAX_CLICKS} here.`, token);
    expectWord('of');
    return { op: 'within', clicks, of: inner() };
  };

  /** `was (…)` and `changed(fact)`, which ask an earlier crawl. */
  const across = (): Selection | null => {
    if (isWord('was')) {
      take();
      return { op: 'was', of: inner() };
    }
    if (!isWord('changed') || tokens[next + 1].value !== '(') return null;
    take();
    take();
    may('Fact that changed', ...comparedFacts);
    const { value: differing } = peek();
    if (!isComparedFact(differing)) return fail(`Expected a fact that is compared here: ${quoted(comparedFacts)}.`);
    take();
    expectSign(')');
    return { op: 'differs', differing };
  };

  /** A date in quotes, as seconds since 1970. */
  const date = (): number => {
    const read = peek().kind === 'text' ? readW3cDate(peek().value) : null;
    if (read === null) fail('Expected a date in quotes here, such as "2026-10-02".');
    take();
    return read! / 1000;
  };

  /** `list("Campaigns")`, `log("May").hits > 10`: which import counts is found out when the selection is answered. */
  const imported = (kind: ImportKind): Selection => {
    expectSign('(');
    if (peek().kind === 'end') offer([], kind);
    const { value: name, at, length } = peek();
    if (peek().kind !== 'text') fail(`Expected the name of a ${kind} in quotes here.`);
    take();
    may('', ')');
    expectSign(')');
    if (!isSign('.')) return { op: 'imported', kind, name, at, length, number: null };
    take();
    const column = peek().value;
    if (peek().kind !== 'word') fail(`Expected the name of a number of the ${kind} here.`);
    take();
    may('', ...orderings);
    const comparison = peek().value as ImportedNumber['comparison'];
    if (peek().kind !== 'operator') fail(`Expected a comparison here: ${orderings.join('  ')}`);
    take();
    const value = isDateColumn(column) ? date() : number('a number');
    return { op: 'imported', kind, name, at, length, number: { column, comparison, value } };
  };

  const test = (): Selection => {
    const { facts, words, of } = catalogue;
    if (peek().kind === 'end') {
      offer(Object.entries(facts).map(([name, { label }]) => ({ text: name, about: label })));
      offer(
        [...words].flatMap(([word, { fact }]) =>
          Object.hasOwn(facts, word) ? [] : [{ text: word, about: facts[fact].label }],
        ),
      );
      if (of === 'pages') may('Source', 'seen in', ...importKinds.map((kind) => `${kind}("`));
      may(
        'Step along links',
        ...(of === 'pages' ? ['linked from (', 'links to (', 'within 2 of (', 'only through ('] : ['from (', 'to (']),
      );
      if (of === 'pages') may('Earlier crawl', 'was (', 'changed(');
      may('', 'not', '(');
    }
    const token = peek();
    if (token.kind !== 'word')
      fail(
        token.kind === 'end'
          ? `Expected a test here, such as ${of === 'pages' ? 'depth > 3' : 'kind = click'}.`
          : 'Expected a test here.',
      );
    const taken = step() ?? (of === 'pages' ? across() : null);
    if (taken) return taken;
    take();
    const word = token.value;
    if (word === 'seen' && of === 'pages') {
      expectWord('in');
      may('Source', ...sources);
      const source = peek();
      if (!(sources as readonly string[]).includes(source.value)) fail(`Expected a source here: ${quoted(sources)}.`);
      take();
      return { op: 'seen', source: source.value };
    }
    if (of === 'pages' && (importKinds as readonly string[]).includes(word)) return imported(word as ImportKind);
    if (Object.hasOwn(facts, word)) return comparison(word);
    const meant = words.get(word);
    if (meant) return { op: 'compare', fact: meant.fact, comparison: '=', value: meant.value };
    const near = [...Object.keys(facts), ...words.keys()].filter((name) => name.startsWith(word.slice(0, 3)));
    return fail(
      `“${word}” is not a fact of ${of}${near.length ? `. Did you mean ${quoted([...new Set(near)].slice(0, 4))}?` : '.'}`,
      token,
    );
  };

  const negation = (): Selection => {
    if (++depth > MAX_DEPTH) fail('Brackets are nested too deep.');
    try {
      if (isWord('not')) {
        take();
        return { op: 'not', of: negation() };
      }
      if (!isSign('(')) return test();
      take();
      const of = either();
      may('', ')');
      expectSign(')');
      return of;
    } finally {
      depth--;
    }
  };
  const chain = (op: 'and' | 'or', part: () => Selection) => (): Selection => {
    let left = part();
    for (;;) {
      may('', op);
      if (!isWord(op)) return left;
      take();
      left = { op, left, right: part() };
    }
  };
  const both = chain('and', negation);
  const either = chain('or', both);

  if (peek().kind === 'end') {
    if (text.trim() === '') void attempt(test);
    return { op: 'all' };
  }
  const selection = either();
  if (peek().kind !== 'end') fail('Expected “and”, “or” or the end here.');
  return selection;
}

/** Runs what may end in a fault, for what it offers on the way. */
function attempt(run: () => unknown): SelectionFault | null {
  try {
    run();
    return null;
  } catch (error) {
    if (!isError(error, 'selection')) throw error;
    return { message: error.message, ...error.params };
  }
}

const MAX_LENGTH = 4000;

function parseWith(text: string, catalogue: Catalogue): ParsedSelection {
  if (text.length > MAX_LENGTH)
    return {
      ok: false,
      fault: { message: `A selection may be ${MAX_LENGTH} characters long.`, at: MAX_LENGTH, length: 1 },
    };
  let selection: Selection | undefined;
  const fault = attempt(() => (selection = read(text, catalogue, () => {})));
  return fault ? { ok: false, fault } : { ok: true, selection: selection! };
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
  void attempt(() =>
    read(before.slice(0, from), catalogue, (more, fact) => {
      offers.push(...more);
      if (fact !== undefined)
        offers.push(...valuesOf(fact).map((value) => ({ text: JSON.stringify(value), about: fact })));
    }),
  );
  const wanted = begun.toLowerCase();
  const fitting = offers.filter(
    ({ text }, i) => text.toLowerCase().startsWith(wanted) && offers.findIndex((other) => other.text === text) === i,
  );
  return { from, offers: fitting.slice(0, MAX_OFFERS) };
}

/** Whether a part of a selection, or of what it is made of, passes a test. */
function anyPart(selection: Selection, test: (part: Selection) => boolean): boolean {
  if (test(selection)) return true;
  if ('left' in selection) return anyPart(selection.left, test) || anyPart(selection.right, test);
  return 'of' in selection && anyPart(selection.of, test);
}

/** Whether a selection of pages asks about links, and not only about facts. */
export const asksForLinks = (selection: Selection): boolean =>
  anyPart(selection, ({ op }) => op === 'step' || op === 'within');

/** Whether a part of a selection can only be answered beside an earlier crawl. */
export const isAcross = (part: Selection): boolean =>
  part.op === 'was' ||
  part.op === 'differs' ||
  ('fact' in part && (isChangeFact(part.fact) || isLinkChangeFact(part.fact)));

/** Whether a selection asks what an earlier crawl told. */
export const asksForEarlier = (selection: Selection): boolean => anyPart(selection, isAcross);
