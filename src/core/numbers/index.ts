export { thousands } from './thousands';
