export { detectEncoding } from './encoding';
export type { ListEncoding } from './encoding';
export { columnWord, guessColumns, guessDecimal, guessDelimiter, readDate, readNumber, SAMPLE_ROWS } from './guess';
export type { DecimalSign, Layout, NumberColumn } from './guess';
