export { robotsBench } from './bench';
export type { JudgedDraft } from './bench';
export { robotsEffect } from './effect';
export type { ChangedPage, RobotsChange, RobotsEffect, RobotsEffectCounts } from './effect';
export { compareJudged, decidingLines, judge, pagesOfOrigin } from './judge';
export type { Judged, JudgedChange } from './judge';
export { effectParts, judgingParts } from './parts';
