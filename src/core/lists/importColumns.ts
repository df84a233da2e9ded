/** The numbers that imports give, as columns of the list of pages. Their names hold all that is to be known of them. */
import { isDateColumn, ROWS_COLUMN, logColumns } from '../imports/source';
import type { ImportedSource, ImportKind } from '../imports/source';
import { quote } from '../selection/print';
import type { ListColumn } from './column';

/** A text as letters and digits, so that it can stand in a name. */
const toHex = (text: string) =>
  Array.from(new TextEncoder().encode(text), (byte) => byte.toString(16).padStart(2, '0')).join('');
const fromHex = (hex: string) =>
  new TextDecoder().decode(Uint8Array.from(hex.match(/../g) ?? [], (byte) => parseInt(byte, 16)));

const form = /^(list|log)__((?:[0-9a-f]{2})+)__(\w+)$/;

/** The name of a column: `list__416473__clicks` for the clicks of the list “Ads”. */
export const importColumnName = (kind: ImportKind, source: string, number: string): string =>
  `${kind}__${toHex(source)}__${number}`;

/** The column with such a name; undefined when it is none. */
export function importColumn(name: string): ListColumn | undefined {
  const found = form.exec(name);
  if (!found) return undefined;
  const [, kind, hex, number] = found;
  const source = fromHex(hex);
  return {
    name,
    asked: `${kind}(${quote(source)}).${number}`,
    type: isDateColumn(number) ? 'text' : 'ratio',
    label: `${number.replaceAll('_', ' ')} (${source})`,
    meaning: `What the ${kind === 'log' ? 'access log' : 'list'} “${source}” gives as ${number.replaceAll('_', ' ')}.`,
    sort: 'high',
  };
}

/**
 * The numbers of a source that make a column: the hits of each log by itself, and of a list all but how many rows there
 * are.
 */
export const numbersOfSource = ({ kind, columns }: Pick<ImportedSource, 'kind' | 'columns'>): string[] =>
  Object.keys(columns).filter((name) => (kind === 'log' ? name === logColumns[0] : name !== ROWS_COLUMN));
