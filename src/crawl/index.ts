export { runAnalysis, helpWith, runCrawl } from './job';
export type { Interruption, JobRun, Progress } from './job';
export { allowsPrivate } from './operator';
export { startParsers } from './parserPool';
export type { StartedParsers } from './parserPool';
export { terminalName, work } from './worker';
