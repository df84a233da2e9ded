export { saveSchedule, scheduleOf, startDue, stopSchedule } from './schedules';
