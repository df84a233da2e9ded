export { liveCheckKinds } from './liveChecks';
export type {
  LiveCheck,
  LiveCheckKind,
  LiveCheckState,
  LiveResults,
  LiveRobots,
  LiveSitemap,
  LiveVariant,
} from './liveChecks';
