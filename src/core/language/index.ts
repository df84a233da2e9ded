export { isWordBoundary, sentenceAround } from './sentences';
export { guessLanguage, languageOf, smallWords } from './smallWords';
export { stemOf } from './stem';
