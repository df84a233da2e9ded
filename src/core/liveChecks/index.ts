export { liveCheckKinds } from './liveChecks';
export type { LiveCheck, LiveCheckKind, LiveResults, LiveRobots, LiveSitemap, LiveVariant } from './liveChecks';
