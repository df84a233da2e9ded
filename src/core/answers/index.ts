export {
  countPages,
  count,
  depthBars,
  overviewAnswer,
  reachAnswer,
  sectionCounts,
  sourceCounts,
  verdictMakeUp,
} from './answers';
export type { AnswerPiece, DepthBar } from './answers';
export { dossierOf, indexSteps } from './dossier';
export type { Dossier, DossierStep, LinkingPage } from './dossier';
