export { analyse, analyseAgain, analyseHalf, derivationsAfter, halves } from './analyse';
export type { Half, Progress } from './analyse';
export { derivations } from './derivations';
export type { AnalysisSettings, Input } from './derivations';
