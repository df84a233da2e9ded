export { detectEncoding } from './encoding';
export type { ListEncoding } from './encoding';
export { columnWord, guessColumns, guessDelimiter, readNumber, SAMPLE_ROWS } from './guess';
export type { Layout, NumberColumn } from './guess';
