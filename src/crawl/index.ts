export { allowsPrivate } from './operator';
export { helpWith, runJob } from './job';
export type { Interruption, JobRun } from './job';
export { terminalName, work } from './worker';
