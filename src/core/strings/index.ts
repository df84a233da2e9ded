/**
 * A copy of a text that holds nothing else. Engines make a slice, and a match, as a view of the whole that it was cut from:
 * to remember one word of a document is to keep the document. The key of an object is a string of its own.
 */
export const ownCopy = (text: string): string => Object.keys({ [text]: 0 })[0];
