export { chance } from './chance';
export { readNumbers, writeNumbers } from './ranges';
export type { Numbers } from './ranges';
export { thousands } from './thousands';
