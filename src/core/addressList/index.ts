export { detectEncoding } from './encoding';
export type { ListEncoding } from './encoding';
export { columnWord, guessColumns, guessDecimal, guessDelimiter, readNumber, SAMPLE_ROWS } from './guess';
export type { DecimalSign, Layout, NumberColumn } from './guess';
