export { TEXT_INDEX_VERSION, textIndexBuilder } from './build';
export type { TextPage, TextParts } from './build';
export { GOOD_PLACES_PART, goodPlacesPart, openTextIndex } from './open';
export type { TextIndex } from './open';
export { IN_CODE, IN_LINK, IS_APART, pageWords } from './tokens';
export type { PageWords } from './tokens';
export { wordsOfText } from './textWords';
export type { TextWord } from './textWords';
