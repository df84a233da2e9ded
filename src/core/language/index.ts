export { guessLanguage, languageOf, smallWords } from './smallWords';
export { stemOf } from './stem';
