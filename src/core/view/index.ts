export { overView, viewOf, withComparison, withImports, withPlainShare } from './view';
export type { ComparedView, View } from './view';
