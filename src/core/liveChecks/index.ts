export { liveCheckKinds } from './liveChecks';
export type { LiveCheck, LiveCheckKind, LiveCheckState, LiveResults, LiveSitemap } from './liveChecks';
