export { saveSchedule, scheduleOf, startDue, stopSchedule } from './schedules';
export type { SiteSchedule } from './schedules';
