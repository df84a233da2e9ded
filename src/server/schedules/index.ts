export { afterCrawl } from './afterCrawl';
export { keepCrawls, pinCrawl, pruneCrawls } from './keeping';
export { saveSchedule, scheduleOf, startDue, stopSchedule } from './schedules';
export type { SiteSchedule } from './schedules';
