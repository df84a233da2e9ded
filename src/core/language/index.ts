export { isWordBoundary, sentenceAround } from './sentences';
export { guessLanguage, isInCapitals, isLinkWord, isSmallWord, languageOf, smallWords } from './smallWords';
export { stemOf } from './stem';
