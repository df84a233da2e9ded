export { lostShare, wordingsOf } from './wordings';
export type { Wording } from './wordings';
