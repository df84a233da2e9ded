export { lostShare, seemsWrong, wordingsOf } from './wordings';
export type { Wording } from './wordings';
