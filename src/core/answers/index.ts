export { changeAnswer, changeCounts, changeFlow } from './change';
export type { ChangeCounts, ChangeFlow, FlowValue, Stream } from './change';
export { flowCategories } from './flowCategories';
export type { FlowCategory } from './flowCategories';
export { notCrawled, originCounts, overviewAnswer, sectionCounts, sourceCounts, verdictMakeUp } from './answers';
export { dossierOf, indexSteps, routeOf, routeWithout } from './dossier';
export type {
  Dossier,
  DossierLink,
  DossierStep,
  PageDossier,
  PageDetails,
  PageThen,
  RouteStep,
  SharePart,
} from './dossier';
export { flowAnswer, richAs, shareCurve } from './flow';
export type { ShareCurve } from './flow';
export type { AnswerPiece } from './pieces';
export { depthBars, noRoute, reachAnswer, readerDifference, topGates } from './reach';
export type { DepthBar, Gate, Island, NoRoute, ReaderDifference } from './reach';
export { rollCallAnswer } from './rollCall';
export { sitemapRows } from './sitemaps';
export type { SitemapAdvice, SitemapOrigin, SitemapRow } from './sitemaps';
export { rulesAnswer, verdictEvidence } from './rules';
export type { Evidence, VerdictEvidence } from './rules';
