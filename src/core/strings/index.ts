/**
 * A copy of a text that holds nothing else. Engines make a slice, and a match, as a view of the whole that it was cut
 * from: to remember one word of a document is to keep the document. A slice of a text that was put together for it
 * keeps that.
 */
export const ownCopy = (text: string): string => ` ${text}`.slice(1);
