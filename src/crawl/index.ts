export { runAnalysis, helpWith, runCrawl } from './job';
export type { Interruption, Progress } from './job';
export { allowsPrivate } from './operator';
export { indexTexts } from './textIndex';
export { terminalName, work } from './worker';
