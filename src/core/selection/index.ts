export { countBits, eachBit, hasBit, noBits, numbersOf, otherBits, setBit } from './bits';
export type { Bits } from './bits';
export { NO_EARLIER } from './changes';
export { evaluate, evaluateRows } from './evaluate';
export type { SelectionFault } from './lexer';
export { evaluateLinks } from './links';
export { asksForEarlier, asksForLinks, completeSelection, parseLinkSelection, parseSelection } from './parse';
export type { Selection } from './parse';
export { narrowed, quote } from './print';
