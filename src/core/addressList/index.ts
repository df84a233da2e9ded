export { detectEncoding } from './encoding';
export { columnWord, guessColumns, guessDecimal, guessDelimiter, readDate, readNumber, SAMPLE_ROWS } from './guess';
export type { Layout } from './guess';
