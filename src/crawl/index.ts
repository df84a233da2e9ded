export { runAnalysis, helpWith, runCrawl } from './job';
export type { Interruption, Progress } from './job';
export { allowsPrivate } from './operator';
export { terminalName, work } from './worker';
