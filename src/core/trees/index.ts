export { disagreements, treesOf } from './trees';
export type { Trees } from './trees';
