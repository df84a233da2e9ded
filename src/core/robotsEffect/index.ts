export { robotsBench } from './bench';
export type { JudgedDraft } from './bench';
export { robotsEffect } from './effect';
export type { ChangedPage, RobotsEffectCounts } from './effect';
export { compareJudged, decidingLines, pagesOfOrigin } from './judge';
export { effectParts, judgingParts } from './parts';
