/** What a selection can ask: facts of pages, facts of links, and the words that stand for a comparison. */
import {
  changeFacts,
  isColumnName,
  linkChangeFacts,
  linkFacts,
  pageClasses,
  pageFacts,
  reaches,
  verdicts,
} from '../facts';
import type { Fact } from '../facts';
import { linkKinds } from '../links';

/** What the language needs to know of a fact. */
export type Asked = Pick<Fact, 'type' | 'label' | 'meaning' | 'values'>;

export interface Catalogue {
  /** What the tests are about, in the plural. */
  of: 'pages' | 'links';
  facts: Readonly<Record<string, Asked>>;
  /** Words that are a test by themselves: a value of a fact. */
  words: ReadonlyMap<string, { fact: string; value: string }>;
}

const wordsFor = (fact: string, values: readonly string[]) =>
  values.map((value): [string, { fact: string; value: string }] => [value, { fact, value }]);

export const pageCatalogue: Catalogue = {
  of: 'pages',
  // Messages are put together for readers: there is nothing in them that other facts do not say.
  facts: {
    ...Object.fromEntries(Object.entries<Fact>(pageFacts).filter(([name]) => isColumnName(name))),
    ...changeFacts,
  },
  // A fact of the same name goes before: `noindex` is the fact.
  words: new Map([
    ...wordsFor('verdict', verdicts),
    ...wordsFor('reach', reaches),
    ...wordsFor('change', pageClasses),
    ['new', { fact: 'change', value: 'added' }],
  ]),
};

export const linkCatalogue: Catalogue = {
  of: 'links',
  facts: { ...(linkFacts as Record<string, Fact>), ...linkChangeFacts },
  words: new Map(wordsFor('kind', linkKinds)),
};
