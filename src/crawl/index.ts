export { runJob } from './job';
export type { Interruption, JobRun } from './job';
export { ownerName, work } from './worker';
