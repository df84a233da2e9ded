export { closedSite, outcomesOf } from './closed';
export type { Example } from './closed';
export type { Watched } from './watched';
