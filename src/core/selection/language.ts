/** The language alone, for an editor: nothing here needs a snapshot. */
export { linkCatalogue, pageCatalogue } from './catalogue';
export { tokenize } from './lexer';
export type { SelectionFault } from './lexer';
export { asksForEarlier, asksForLinks, completeSelection, parseLinkSelection, parseSelection } from './parse';
export type { Completion, Offer } from './parse';
export { narrowed, quote } from './print';
