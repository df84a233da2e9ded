/** Edits of a model: pages and links that are not there yet, as a layer over a view. */
import { analyseWith } from '../analysis';
import type { AnalysisSettings } from '../analysis';
import { columnNames, factOf } from '../facts';
import type { BaseFact, ColumnName } from '../facts';
import { numbersOf } from '../links';
import type { Link, LinkFieldName, LinkNumbers } from '../links';
import { addressAt, isText, linkFieldColumns, once, pageOf, textColumn, withInserted } from '../snapshot';
import type { Column, FactValue, Layer, Snapshot } from '../snapshot';
import { viewOf } from '../view';
import type { View } from '../view';

export interface AddedPage {
  /** In normal form. */
  address: string;
  /** What is known of it; all other facts are unknown. */
  facts?: Partial<Record<BaseFact, FactValue>>;
}

export interface AddedLink extends Pick<Link, 'target'>, Partial<Omit<Link, 'target'>> {
  /** Address of the page that it is on, which is one of the view or an added one. */
  source: string;
}

export interface Edits {
  pages?: readonly AddedPage[];
  links?: readonly AddedLink[];
}

const plainLink: Omit<Link, 'target'> = {
  kind: 'click',
  element: 'a',
  anchor: '',
  rel: '',
  placement: 'main',
  above: '',
  fragment: '',
  line: 0,
  column: 0,
};

/** The value of a fact as its column holds it. */
function numberFor(name: ColumnName, value: FactValue): number {
  const { values } = factOf(name);
  if (value === null) return -1;
  return values && typeof value === 'string' ? values.indexOf(value) : Number(value);
}

/** A column with entries for pages that are appended. */
function appended(name: ColumnName, column: Column, values: readonly FactValue[]): Column {
  if (isText(column)) {
    const known = Array.from(column.codes, (code) => (code === 0 ? null : column.values[code]));
    return textColumn([...known, ...values.map((value) => (value === null ? null : String(value)))]);
  }
  const longer = new (column instanceof Float64Array ? Float64Array : Int32Array)(column.length + values.length);
  longer.set(column);
  longer.set(
    values.map((value) => numberFor(name, value)),
    column.length,
  );
  return longer;
}

/** Numbers for texts: those that are known keep theirs, others are appended. */
function appending(known: readonly string[], firstNumber = 0) {
  const numbers = new Map(known.map((text, i) => [text, firstNumber + i]));
  const added: string[] = [];
  return {
    of(text: string): number {
      let number = numbers.get(text);
      if (number === undefined) numbers.set(text, (number = firstNumber + known.length + added.push(text) - 1));
      return number;
    },
    texts: () => [...known, ...added],
  };
}

function withPages(view: View, pages: readonly AddedPage[]): Layer {
  const longer = (numbers: Uint32Array, by: number, fill = 0) => {
    const all = new Uint32Array(numbers.length + by).fill(fill);
    all.set(numbers);
    return all;
  };
  const valuesOf = (name: ColumnName) =>
    pages.map(({ address, facts = {} }) =>
      name === 'url' ? address : ((facts as Record<string, FactValue>)[name] ?? null),
    );
  const isBase = (name: ColumnName) => factOf(name).from !== 'derived';
  return {
    count: view.count + pages.length,
    columns: Object.fromEntries(
      columnNames.filter(isBase).map((name) => [name, () => appended(name, view.column(name), valuesOf(name))]),
    ),
    fingerprints: () => longer(view.fingerprints, 2 * pages.length),
    wordFilters: () => {
      const { offsets, bytes } = view.wordFilters;
      return { offsets: longer(offsets, pages.length, offsets[view.count]), bytes };
    },
  };
}

/** The links of a view, in which pages are appended and links added, with the texts that they name. */
function linksWith(view: View, pages: readonly AddedPage[], added: readonly AddedLink[]) {
  const { links, count } = view;
  const outside = appending(view.outside, count + pages.length);
  const phrases = appending(view.phrases);
  const newPages = new Map(pages.map(({ address }, i) => [address, count + i]));
  const pageNumber = (address: string) => newPages.get(address) ?? pageOf(view, address);
  const numberOf = (address: string) => (pageNumber(address) < 0 ? outside.of(address) : pageNumber(address));
  const rows = added
    .map(({ source, ...link }) => ({
      source: pageNumber(source),
      numbers: numbersOf({ ...plainLink, ...link }, numberOf, phrases.of),
    }))
    .filter(({ source }) => source >= 0)
    .sort((a, b) => a.source - b.source);
  const places = rows.map(({ source }) => links.offsets[Math.min(source + 1, count)]);
  // What led off the site may lead to a page that is added.
  const target = links.target.map((to) => (to < count ? to : numberOf(addressAt(view, to))));
  const column = (name: LinkFieldName) =>
    withInserted(
      name === 'target' ? target : links[name],
      places,
      rows.map(({ numbers }: { numbers: LinkNumbers }) => numbers[name]),
    );
  const offsets = new Uint32Array(count + pages.length + 1);
  let before = 0;
  for (let page = 0; page < offsets.length; page++) {
    while (before < rows.length && rows[before].source < page) before++;
    offsets[page] = links.offsets[Math.min(page, count)] + before;
  }
  return { links: { offsets, ...linkFieldColumns(column) }, outside: outside.texts(), phrases: phrases.texts() };
}

/** The layer of some edits. */
function layerOf(view: View, { pages = [], links = [] }: Edits): Layer {
  const made = once(() => linksWith(view, pages, links));
  return {
    ...(pages.length ? withPages(view, pages) : {}),
    links: () => made().links,
    outside: () => made().outside,
    phrases: () => made().phrases,
    checks: () => made().outside.map((_, i) => view.checks[i] ?? null),
  };
}

/**
 * A view with edits, of which only what they touch is worked out again. Pages keep their numbers; added ones come after
 * them. Addresses that the view knows are not added, and links of pages that it does not know are left out.
 */
export function withEdits(view: View, edits: Edits, settings: AnalysisSettings): View {
  const pages = (edits.pages ?? []).filter(({ address }) => pageOf(view, address) < 0);
  const edited: Snapshot = analyseWith(view, layerOf(view, { ...edits, pages }), settings);
  // Sources are matched again: they may know pages that are added.
  return viewOf(edited, view.imports);
}
