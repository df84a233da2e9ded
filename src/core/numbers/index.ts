export { chance } from './chance';
export { readNumbers, writeNumbers } from './ranges';
export { thousands } from './thousands';
