export * from './changes';
export { keepsText } from './fact';
export type { Fact } from './fact';
export * from './links';
export * from './pages';
export * from './values';
