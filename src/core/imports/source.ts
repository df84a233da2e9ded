/** Sources of URLs besides the crawl that a person has imported: lists and access logs. */

export const importKinds = ['list', 'log'] as const;
export type ImportKind = (typeof importKinds)[number];

/** What is known of each address of a log: `answered` counts the hits that did not end in an error (4xx or 5xx). */
export const logColumns = ['hits', 'crawler_hits', 'answered', 'last_hit'] as const;
/** How many rows of a list name an address: the first column of each list. */
export const ROWS_COLUMN = 'rows';

/** How the names of columns of dates end; they hold seconds since 1970, the latest of each address. */
export const DATE_ENDING = '_date';
export const isDateColumn = (name: string): boolean => name.endsWith(DATE_ENDING);

/** An imported source as columns, one entry an address. */
export interface ImportedSource {
  id: number;
  kind: ImportKind;
  name: string;
  /** In normal form, each once, ascending by code unit. */
  addresses: string[];
  /** By name; NaN is unknown. */
  columns: Record<string, Float64Array>;
}

/** The name of a source in files and on screens: `links`, `sitemap`, `list:Campaigns`, `log:May`. */
export const sourceName = ({ kind, name }: Pick<ImportedSource, 'kind' | 'name'>): string => `${kind}:${name}`;

/**
 * The first number of a source: the hits of a log, the first column of numbers of a list, or its rows when it has none.
 */
export function firstColumn({ kind, columns }: Pick<ImportedSource, 'kind' | 'columns'>): Float64Array {
  if (kind === 'log') return columns.hits;
  const name = Object.keys(columns).find((one) => one !== ROWS_COLUMN && !isDateColumn(one)) ?? ROWS_COLUMN;
  return columns[name];
}
