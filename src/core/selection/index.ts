export { evaluate, pagesOf } from './evaluate';
export type { Mask } from './evaluate';
export { parseSelection } from './parse';
export type { Comparison, ParsedSelection, Selection } from './parse';
export type { SelectionFault } from './lexer';
