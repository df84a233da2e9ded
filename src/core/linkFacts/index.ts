export { followedTest, linkValues } from './values';
export type { LinkValues } from './values';
