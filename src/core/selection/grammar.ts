/** The grammar of the selection language, a function a rule, by recursive descent over a cursor. */
import { isError } from '../errors';
import { comparedFacts, isComparedFact, sources } from '../facts';
import { importKinds, isDateColumn } from '../imports/source';
import type { ImportKind } from '../imports/source';
import { readW3cDate } from '../sitemap/dates';
import { searchedWords } from '../textIndex/textWords';
import type { SearchFault } from '../textIndex/textWords';
import { pageCatalogue } from './catalogue';
import { expectSign, expectWord, fail, isAtEnd, isSign, isWord, may, peek, take, takeWord } from './cursor';
import type { Cursor } from './cursor';
import { linkSteps, pageSteps, testBeginnings } from './keywords';
import type { Token } from './lexer';
import { patternMatcher } from './pattern';
import { orderings, textTests } from './selection';
import type { ImportedNumber, Operator, Selection } from './selection';

const quoted = (words: readonly string[]) => words.map((word) => `“${word}”`).join(', ');
const MAX_DEPTH = 200;
const MAX_CLICKS = 1000;
const MAX_DIGITS = 15;

/** selection := either, up to the end. The empty text selects everything. */
export function readSelection(cursor: Cursor): Selection {
  if (isAtEnd(cursor)) {
    offerTests(cursor);
    return { op: 'all' };
  }
  const selection = either(cursor);
  if (!isAtEnd(cursor)) fail(cursor, 'Expected “and”, “or” or the end here.');
  return selection;
}

/** either := both { "or" both } */
const either = (cursor: Cursor): Selection => joined(cursor, 'or', both);
/** both := negation { "and" negation } */
const both = (cursor: Cursor): Selection => joined(cursor, 'and', negation);

function joined(cursor: Cursor, op: 'and' | 'or', part: (cursor: Cursor) => Selection): Selection {
  let left = part(cursor);
  for (;;) {
    may(cursor, '', op);
    if (!takeWord(cursor, op)) return left;
    left = { op, left, right: part(cursor) };
  }
}

/** negation := "not" negation | "(" either ")" | test */
function negation(cursor: Cursor): Selection {
  if (++cursor.depth > MAX_DEPTH) fail(cursor, 'Brackets are nested too deep.');
  try {
    if (takeWord(cursor, 'not')) return { op: 'not', of: negation(cursor) };
    return isSign(cursor, '(') ? inBrackets(cursor) : test(cursor);
  } finally {
    cursor.depth--;
  }
}

function inBrackets(cursor: Cursor): Selection {
  expectSign(cursor, '(');
  const of = either(cursor);
  expectSign(cursor, ')');
  return of;
}

/** Pages in brackets, whatever is selected around them. */
function pagesInBrackets(cursor: Cursor): Selection {
  const { catalogue } = cursor;
  cursor.catalogue = pageCatalogue;
  const of = inBrackets(cursor);
  cursor.catalogue = catalogue;
  return of;
}

/** Says which tests there are. */
function offerTests(cursor: Cursor): void {
  const { facts, words, of } = cursor.catalogue;
  cursor.offer(Object.entries(facts).map(([name, { label }]) => ({ text: name, about: label })));
  cursor.offer(
    [...words].flatMap(([word, { fact }]) =>
      Object.hasOwn(facts, word) ? [] : [{ text: word, about: facts[fact].label }],
    ),
  );
  cursor.offer([...testBeginnings[of]]);
}

/** test := step | within | was | changed | seen | text | imported | comparison | a word that stands for one */
function test(cursor: Cursor): Selection {
  const { facts, words, of } = cursor.catalogue;
  if (isAtEnd(cursor)) {
    offerTests(cursor);
    fail(cursor, `Expected a test here, such as ${of === 'pages' ? 'depth > 3' : 'kind = click'}.`);
  }
  const token = peek(cursor);
  if (token.kind !== 'word') fail(cursor, 'Expected a test here.');
  const special = of === 'pages' ? pageTest(cursor) : linkStep(cursor);
  if (special) return special;
  take(cursor);
  const word = token.value;
  if (Object.hasOwn(facts, word)) return comparison(cursor, word);
  const meant = words.get(word);
  if (meant) return { op: 'compare', fact: meant.fact, comparison: '=', value: meant.value };
  const near = [...Object.keys(facts), ...words.keys()].filter((name) => name.startsWith(word.slice(0, 3)));
  return fail(
    cursor,
    `“${word}” is not a fact of ${of}${near.length ? `. Did you mean ${quoted([...new Set(near)].slice(0, 4))}?` : '.'}`,
    token,
  );
}

/** step := ( "from" | "to" ) pages */
function linkStep(cursor: Cursor): Selection | null {
  for (const step of linkSteps) if (takeWord(cursor, step)) return { op: 'step', step, of: pagesInBrackets(cursor) };
  return null;
}

/** A test of pages that begins with a keyword; null where it does not. */
function pageTest(cursor: Cursor): Selection | null {
  for (const step of pageSteps) {
    const [first, second] = step.split(' ');
    if (!takeWord(cursor, first)) continue;
    expectWord(cursor, second);
    return { op: 'step', step, of: pagesInBrackets(cursor) };
  }
  if (takeWord(cursor, 'within')) return within(cursor);
  if (takeWord(cursor, 'was')) return { op: 'was', of: pagesInBrackets(cursor) };
  if (isWord(cursor, 'changed') && cursor.tokens[cursor.next + 1].value === '(') return changed(cursor);
  if (takeWord(cursor, 'seen')) return seen(cursor);
  if (takeWord(cursor, 'text')) return text(cursor);
  const kind = importKinds.find((one) => takeWord(cursor, one));
  return kind ? imported(cursor, kind) : null;
}

/** within := "within" NUMBER "of" pages */
function within(cursor: Cursor): Selection {
  const token = peek(cursor);
  const clicks = number(cursor, 'a number of clicks');
  if (!Number.isInteger(clicks) || clicks < 0 || clicks > MAX_CLICKS)
    fail(cursor, `Expected a whole number of clicks up to ${MAX_CLICKS} here.`, token);
  expectWord(cursor, 'of');
  return { op: 'within', clicks, of: pagesInBrackets(cursor) };
}

/** changed := "changed" "(" FACT ")" */
function changed(cursor: Cursor): Selection {
  take(cursor);
  expectSign(cursor, '(');
  may(cursor, 'Fact that changed', ...comparedFacts);
  const { value: differing } = peek(cursor);
  if (!isComparedFact(differing))
    return fail(cursor, `Expected a fact that is compared here: ${quoted(comparedFacts)}.`);
  take(cursor);
  expectSign(cursor, ')');
  return { op: 'differs', differing };
}

/** seen := "seen" "in" SOURCE */
function seen(cursor: Cursor): Selection {
  expectWord(cursor, 'in');
  may(cursor, 'Source', ...sources);
  const { value: source } = peek(cursor);
  if (!(sources as readonly string[]).includes(source)) fail(cursor, `Expected a source here: ${quoted(sources)}.`);
  take(cursor);
  return { op: 'seen', source };
}

/** What is wrong with words that are to be found in texts. */
const wordFaults: Record<SearchFault, string> = {
  no_words: 'Expected a word in the quotes.',
  long_number: 'Numbers of more than four digits cannot be found in texts.',
};

/** text := "text" "has" TEXT */
function text(cursor: Cursor): Selection {
  expectWord(cursor, 'has');
  const token = peek(cursor);
  if (token.kind === 'end') cursor.offer([], 'text');
  if (token.kind !== 'text') fail(cursor, 'Expected words in quotes here, such as "trolley wire".');
  const words = searchedWords(token.value);
  if (typeof words === 'string') return fail(cursor, wordFaults[words]);
  const { at, length } = take(cursor);
  return { op: 'text', words, at, length };
}

/**
 * imported := KIND "(" TEXT ")" [ "." NUMBER ordering value ]: which import counts is found out when it is answered.
 */
function imported(cursor: Cursor, kind: ImportKind): Selection {
  expectSign(cursor, '(');
  if (isAtEnd(cursor)) cursor.offer([], kind);
  const { value: name, at, length } = peek(cursor);
  if (peek(cursor).kind !== 'text') fail(cursor, `Expected the name of a ${kind} in quotes here.`);
  take(cursor);
  expectSign(cursor, ')');
  return { op: 'imported', kind, name, at, length, number: isSign(cursor, '.') ? importedNumber(cursor, kind) : null };
}

function importedNumber(cursor: Cursor, kind: ImportKind): ImportedNumber {
  take(cursor);
  const column = peek(cursor).value;
  if (peek(cursor).kind !== 'word') fail(cursor, `Expected the name of a number of the ${kind} here.`);
  take(cursor);
  may(cursor, '', ...orderings);
  const ordering = orderings.find((sign) => sign === peek(cursor).value);
  if (!ordering) return fail(cursor, `Expected a comparison here: ${orderings.join('  ')}`);
  take(cursor);
  return { column, comparison: ordering, value: isDateColumn(column) ? date(cursor) : number(cursor, 'a number') };
}

/**
 * comparison := FACT ( "is" [ "not" ] "unknown" | "in" "(" value { "," value } ")" | OPERATOR value | nothing, for a
 * flag )
 */
function comparison(cursor: Cursor, fact: string): Selection {
  const { type } = cursor.catalogue.facts[fact];
  const operators = operatorsOf(cursor, fact);
  const hasList = type !== 'flag' && type !== 'set';
  may(cursor, '', ...operators, ...(hasList ? ['in ('] : []), 'is unknown', 'is not unknown');
  if (takeWord(cursor, 'is')) {
    const isNegated = takeWord(cursor, 'not');
    expectWord(cursor, 'unknown');
    return isNegated ? { op: 'not', of: { op: 'unknown', fact } } : { op: 'unknown', fact };
  }
  if (type === 'flag') return { op: 'flag', fact };
  if (hasList && takeWord(cursor, 'in')) return { op: 'in', fact, values: values(cursor, fact) };
  const token = peek(cursor);
  if (!operators.some((operator) => operator === token.value) || !['operator', 'word'].includes(token.kind)) {
    const choices = [...operators, ...(hasList ? ['in (…)'] : []), 'is unknown'];
    return fail(cursor, `Expected a comparison of ${fact} here: ${choices.join('  ')}`);
  }
  take(cursor);
  if (token.value === 'matches' && peek(cursor).kind === 'text') checkPattern(cursor, peek(cursor));
  return { op: 'compare', fact, comparison: token.value as Operator, value: value(cursor, fact) };
}

function operatorsOf(cursor: Cursor, fact: string): readonly Operator[] {
  switch (cursor.catalogue.facts[fact].type) {
    case 'flag':
      return [];
    case 'set':
      return ['has'];
    case 'text':
    case 'page':
      return [...orderings, ...textTests];
    default:
      return isNumeric(cursor, fact) ? orderings : ['=', '!='];
  }
}

const isNumeric = ({ catalogue }: Cursor, fact: string) => ['number', 'ratio'].includes(catalogue.facts[fact].type);

function values(cursor: Cursor, fact: string): (string | number)[] {
  expectSign(cursor, '(');
  const all = [value(cursor, fact)];
  while (isSign(cursor, ',')) {
    take(cursor);
    all.push(value(cursor, fact));
  }
  may(cursor, '', ',');
  expectSign(cursor, ')');
  return all;
}

function value(cursor: Cursor, fact: string): string | number {
  if (isNumeric(cursor, fact)) return number(cursor, `a number to compare ${fact} with`);
  const token = peek(cursor);
  const { values, label } = cursor.catalogue.facts[fact];
  if (values) may(cursor, label, ...values);
  else if (token.kind === 'end') cursor.offer([], fact);
  if (token.kind !== 'text' && token.kind !== 'word' && token.kind !== 'number')
    fail(cursor, `Expected ${values ? `one of ${quoted(values)}` : 'a text in quotes'} here.`);
  if (values && !values.includes(token.value))
    fail(cursor, `${fact} is never “${token.value}”. It is one of ${quoted(values)}.`);
  if (!values && token.kind === 'word') fail(cursor, `Put the text in quotes: "${token.value}".`);
  return take(cursor).value;
}

function number(cursor: Cursor, what: string): number {
  if (peek(cursor).kind !== 'number') fail(cursor, `Expected ${what} here.`);
  if (peek(cursor).value.replace(/[-.]/g, '').length > MAX_DIGITS) fail(cursor, 'This number has too many digits.');
  return Number(take(cursor).value);
}

/** A date in quotes, as seconds since 1970. */
function date(cursor: Cursor): number {
  const read = peek(cursor).kind === 'text' ? readW3cDate(peek(cursor).value) : null;
  if (read === null) return fail(cursor, 'Expected a date in quotes here, such as "2026-10-02".');
  take(cursor);
  return read / 1000;
}

function checkPattern(cursor: Cursor, token: Token): void {
  try {
    patternMatcher(token.value);
  } catch (error) {
    if (!isError(error, 'selection')) throw error;
    // The place within the pattern is that within the text, unless quotes were escaped before it.
    fail(cursor, error.message, { at: token.at + 1 + error.params.at, length: error.params.length });
  }
}
