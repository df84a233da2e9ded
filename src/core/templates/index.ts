export { templateColumn } from './templates';
