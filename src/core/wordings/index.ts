export { firstSeenIn, noneSeen, packFirstSeen, seenSince, unpackFirstSeen, wordingKey } from './firstSeen';
export type { FirstSeen } from './firstSeen';
export { saidOn, sectionWords, sharedWords } from './said';
export type { SectionWords, SharedWords } from './said';
export { lostShare, seemsWrong, wordingsOf } from './wordings';
export type { Wording } from './wordings';
