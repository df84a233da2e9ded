/** The language alone, for an editor: nothing here needs a snapshot. */
export { linkCatalogue, pageCatalogue } from './catalogue';
export { tokenize } from './lexer';
export type { SelectionFault } from './lexer';
export type { Offer } from './cursor';
export { keywords } from './keywords';
export { completeSelection, parseLinkSelection, parseSelection } from './parse';
export type { Completion } from './parse';
export { asksForEarlier, asksForLinks } from './selection';
export { narrowed, quote } from './print';
