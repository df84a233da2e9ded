export { comingRuns, everyNames, LAST_DAY, nextRun, scheduleSchema, zones } from './schedule';
export type { Schedule } from './schedule';
