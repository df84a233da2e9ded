export { overView, readTexts, viewOf, withComparison, withImports, withPlainShare } from './view';
export type { ComparedView, Texts, View } from './view';
