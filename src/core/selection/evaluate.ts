import { sources } from '../facts';
import type { ColumnName } from '../facts';
import { CLICK_KIND } from '../links';
import { clickDepths, unreachedWithout, walkOf } from '../reach';
import { isText, joinedTexts } from '../snapshot';
import type { Column, JoinedTexts, TextColumn } from '../snapshot';
import {
  bitsOfCodes,
  bitsOfValues,
  bitsWhere,
  bothBits,
  eachBit,
  eitherBits,
  hasBit,
  noBits,
  numbersOf,
  otherBits,
  setBit,
} from './bits';
import type { Bits } from './bits';
import { pageCatalogue } from './catalogue';
import type { Asked } from './catalogue';
import { changeBits, NO_EARLIER } from './changes';
import { isAcross } from './selection';
import type { Operator, Selection, Step } from './selection';
import { patternMatcher } from './pattern';
import { predicate } from './predicate';
import type { ComparedView, View } from '../view';
import { selectionFault } from '../errors';
import { searchTexts } from '../textIndex';
import { caseless } from '../words';

/** Joins what the parts of a selection hold; `leaf` answers for all that is no `and`, `or`, `not`. */
export function combine(selection: Selection, size: number, leaf: (part: Selection) => Bits): Bits {
  switch (selection.op) {
    case 'all':
      return otherBits(noBits(size));
    case 'and':
      return bothBits(combine(selection.left, size, leaf), combine(selection.right, size, leaf));
    case 'or':
      return eitherBits(combine(selection.left, size, leaf), combine(selection.right, size, leaf));
    case 'not':
      return otherBits(combine(selection.of, size, leaf));
    default:
      return leaf(selection);
  }
}

/** Tests a column; unknown values fail. Texts are tested once for each distinct value, not once for each page. */
function where({ values }: Asked, column: Column, test: (value: string | number) => boolean): Bits {
  if (isText(column)) {
    const passes = new Uint8Array(column.values.length);
    for (let code = 1; code < passes.length; code++) passes[code] = Number(test(column.values[code]));
    return bitsOfCodes(column.codes, passes);
  }
  if (values) {
    const passes = Uint8Array.from(values, (value) => Number(test(value)));
    return bitsOfValues(column, (value) => passes[value] === 1);
  }
  return bitsOfValues(column, test);
}

/** Lower case of the same length, so that places are the same; null where a letter has none such. */
const lowered = new WeakMap<JoinedTexts, string | null>();
function lowerCase(texts: JoinedTexts): string | null {
  let lower = lowered.get(texts);
  if (lower === undefined) {
    lower = caseless(texts.text);
    lowered.set(texts, (lower = lower.length === texts.text.length ? lower : null));
  }
  return lower;
}

/** Searches all values of a column at once, where that can be done; 1 for each that passes. */
function searched(column: TextColumn, comparison: Operator, value: string): Uint8Array | null {
  if (comparison !== 'has' && comparison !== 'matches') return null;
  const texts = joinedTexts(column);
  if (!texts) return null;
  if (comparison === 'matches') return patternMatcher(value).testAll(texts, column.common);
  const lower = lowerCase(texts);
  if (lower === null || value === '') return null;
  const wanted = caseless(value);
  const { starts } = texts;
  const passes = new Uint8Array(column.values.length);
  let entry = 0;
  for (let at = lower.indexOf(wanted); at >= 0;) {
    while (starts[entry + 1] <= at) entry++;
    // What begins in one value and ends in the next is in neither.
    const within = at + wanted.length <= starts[entry + 1];
    if (within) passes[entry] = 1;
    at = lower.indexOf(wanted, within ? starts[entry + 1] : at + 1);
  }
  return passes;
}

/**
 * The pages of a snapshot that a selection holds. Unknown compares false; `is unknown` finds it.
 * @param selection as `parseSelection` gives it
 * @throws selection when it takes too much work
 */
export function evaluate(snapshot: View, selection: Selection): Bits {
  const { count } = snapshot;
  return combine(selection, count, (part) => {
    if (part.op === 'step') return takeStep(snapshot, part.step, evaluate(snapshot, part.of));
    if (part.op === 'within') {
      const depth = clickDepths(walkOf(snapshot).graph, [...numbersOf(evaluate(snapshot, part.of))], part.clicks).depth;
      return bitsWhere(count, (page) => depth[page] >= 0);
    }
    if (part.op === 'seen') {
      const seen = snapshot.column('seen_in');
      const bit = 1 << sources.indexOf(part.source as (typeof sources)[number]);
      return bitsOfValues(seen, (value) => (value & bit) !== 0);
    }
    if (part.op === 'text') return textBits(snapshot, part);
    if (part.op === 'imported') return importedBits(snapshot, part);
    if (isAcross(part)) return acrossBits(snapshot, count, part);
    if (!('fact' in part)) throw new Error(`“${part.op}” is no test of pages.`);
    const asked = pageCatalogue.facts[part.fact];
    const column: Column = snapshot.column(part.fact as ColumnName);
    if (part.op === 'unknown') {
      const [codes, unknown] = isText(column) ? [column.codes, 0] : [column, -1];
      return bitsWhere(count, (page) => codes[page] === unknown);
    }
    if (part.op === 'flag') return bitsOfValues(column as Int32Array, (value) => value === 1);
    if (part.op === 'in') {
      const values = new Set(part.values);
      return where(asked, column, (value) => values.has(value));
    }
    if (asked.type === 'set') {
      const bit = 1 << asked.values!.indexOf(String(part.value));
      const bits = column as Int32Array;
      return bitsOfValues(bits, (value) => (value & bit) !== 0);
    }
    const passes = isText(column) && searched(column, part.comparison, String(part.value));
    if (passes) return bitsOfCodes((column as TextColumn).codes, passes);
    return where(asked, column, predicate(part.comparison, part.value));
  });
}

/** The pages that a test across crawls holds. @throws selection when there is no earlier crawl */
function acrossBits(snapshot: View, size: number, part: Selection): Bits {
  const comparison = snapshot.comparison;
  if (!comparison) throw selectionFault(NO_EARLIER, 0, 0);
  return changeBits(comparison, size, part, (of) => evaluate(comparison.old, of))!;
}

/**
 * The rows of a comparison that a selection holds. Of a page that only the earlier crawl knows, all facts are unknown
 * but those of its change, and what it was.
 */
export function evaluateRows(snapshot: ComparedView, selection: Selection): Bits {
  const { rows } = snapshot.comparison;
  return combine(selection, rows, (part) => {
    if (isAcross(part)) return acrossBits(snapshot, rows, part);
    const known = evaluate(snapshot, part);
    return bitsWhere(rows, (row) => (row < snapshot.count ? hasBit(known, row) : part.op === 'unknown'));
  });
}

/**
 * The pages that an import knows, or those whose number in it passes.
 * @throws selection when there is no such import or number
 */
function importedBits(snapshot: View, { kind, name, at, length, number }: Extract<Selection, { op: 'imported' }>) {
  const all = snapshot.imports;
  const source = all.find((one) => one.kind === kind && one.name === name);
  const known = all.filter((one) => one.kind === kind).map((one) => `“${one.name}”`);
  if (!source)
    throw selectionFault(
      `No ${kind} “${name}” counts for this crawl.${known.length ? ` There is ${known.join(', ')}.` : ''}`,
      at,
      length,
    );
  const values = number && source.columns[number.column];
  if (number && !values)
    throw selectionFault(
      `The ${kind} has no “${number.column}”, but ${Object.keys(source.columns).join(', ')}.`,
      at,
      length,
    );
  const test = number && predicate(number.comparison, number.value);
  const found = noBits(snapshot.count);
  source.pages.forEach((page, i) => {
    if (page >= 0 && (!test || (!Number.isNaN(values![i]) && test(values![i])))) setBit(found, page);
  });
  return found;
}

/** What is said where a test needs the texts of pages and they are not indexed. */
export const NO_TEXTS = 'The texts of this crawl are not indexed yet. Try again in a moment.';

/** The pages in whose text words stand. @throws selection when the texts are not indexed */
function textBits({ count, texts }: View, { words, at, length }: Extract<Selection, { op: 'text' }>): Bits {
  if (!texts?.index) throw selectionFault(NO_TEXTS, at, length);
  const found = noBits(count);
  for (const page of searchTexts(texts.index, words)) setBit(found, page);
  return found;
}

/** Takes a step along click links, self-links apart. */
function takeStep(snapshot: View, step: Step, of: Bits): Bits {
  const { count, links } = snapshot;
  const { offsets, target, kind } = links;
  const found = noBits(count);
  if (step === 'linked from') {
    eachBit(of, (page) => {
      const stop = offsets[page + 1];
      for (let link = offsets[page]; link < stop; link++)
        if (kind[link] === CLICK_KIND && target[link] < count && target[link] !== page) setBit(found, target[link]);
    });
    return found;
  }
  if (step === 'links to') {
    for (let page = 0; page < count; page++)
      for (let link = offsets[page]; link < offsets[page + 1]; link++)
        if (kind[link] === CLICK_KIND && target[link] < count && target[link] !== page && hasBit(of, target[link])) {
          setBit(found, page);
          break;
        }
    return found;
  }
  const { graph, depths } = walkOf(snapshot);
  return bothBits({ size: count, words: unreachedWithout(graph, depths, of.words) }, otherBits(of));
}
