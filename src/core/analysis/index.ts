export { analyse, analyseWith, derivationsAfter } from './analyse';
export type { Progress } from './analyse';
export { derivations } from './derivations';
export type { AnalysisSettings, Input } from './derivations';
