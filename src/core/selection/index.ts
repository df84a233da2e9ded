export { countBits, eachBit, hasBit, noBits, numbersOf, otherBits, setBit } from './bits';
export type { Bits } from './bits';
export { evaluate, evaluateRows } from './evaluate';
export { Fault } from './lexer';
export type { SelectionFault } from './lexer';
export { evaluateLinks } from './links';
export { asksForEarlier, asksForLinks, completeSelection, parseLinkSelection, parseSelection } from './parse';
export type { Comparison, Completion, Offer, ParsedSelection, Selection } from './parse';
export { narrowed, quote } from './print';
