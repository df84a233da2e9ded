/** What a fact is, and how a row of the tables of facts is written. */

/**
 * How a fact is kept: `text` as codes of a dictionary, `page` as a text too, the address by which it names a page,
 * `number` as 32-bit integers, `ratio` as 64-bit floats, `flag` as yes, no or unknown, `choice` as the index into a
 * closed list, `set` as a bit for each entry of a closed list. A `message` is not kept: it is put together from other
 * facts, as a code with parameters, whenever it is shown.
 */
export type FactType = 'text' | 'page' | 'number' | 'ratio' | 'flag' | 'choice' | 'set' | 'message';

export type Unit =
  | 'clicks'
  | 'pages'
  | 'links'
  | 'addresses'
  | 'redirects'
  | 'requests'
  | 'hits'
  | 'rows'
  | 'words'
  | 'bytes'
  | 'ms'
  | '×';

export interface Fact {
  type: FactType;
  /** What a number counts or measures. */
  unit?: Unit;
  /** Spelt out for the interface. */
  label: string;
  /** One line: the tooltip and the entry of docs/MEANINGS.md. */
  meaning: string;
  /**
   * `base` facts were observed; `derived` ones are worked out of them by src/core/analysis; `import` ones come from the
   * lists and logs that a person imported, and are put beside a snapshot when it is opened (src/core/imports);
   * `compared` ones come of a comparison with an earlier crawl, and of nothing else.
   */
  from: 'base' | 'derived' | 'import' | 'compared';
  /** The closed list of a choice or set. */
  values?: readonly string[];
  /** How its cells are shown, where the type does not tell; a `difference` with its sign. */
  as?: 'address' | 'verdict' | 'code' | 'difference';
  /** Which end comes first when a list is sorted by it for the first time; `none` for what cannot be sorted. */
  sort: 'low' | 'high' | 'none';
  /** Texts longer than this many characters are cut when they are read, and the page is marked `truncated`. */
  limit?: number;
}

/** Facts of this type are kept as texts. */
export const keepsText = (type: FactType): boolean => type === 'text' || type === 'page';

/** What holds for a type where a row does not say otherwise. */
const usual: Record<FactType, Pick<Fact, 'sort' | 'as'>> = {
  text: { sort: 'low' },
  page: { sort: 'low', as: 'address' },
  number: { sort: 'high' },
  ratio: { sort: 'high' },
  flag: { sort: 'high' },
  choice: { sort: 'low' },
  set: { sort: 'high' },
  message: { sort: 'none' },
};

type Row<T extends FactType, F extends Fact['from']> = Fact & { type: T; from: F };

const row =
  <T extends FactType, F extends Fact['from']>(type: T, from: F) =>
  (label: string, meaning: string, more: Partial<Fact> = {}): Row<T, F> => ({
    label,
    meaning,
    ...usual[type],
    ...more,
    type,
    from,
  });

/** Makes the rows of facts that come from one place: `base.text(label, meaning, more)`. */
const rowsFrom = <F extends Fact['from']>(from: F) => ({
  text: row('text', from),
  page: row('page', from),
  number: row('number', from),
  ratio: row('ratio', from),
  flag: row('flag', from),
  choice: row('choice', from),
  set: row('set', from),
  message: row('message', from),
});
export const base = rowsFrom('base');
export const derived = rowsFrom('derived');
export const imported = rowsFrom('import');
export const compared = rowsFrom('compared');
