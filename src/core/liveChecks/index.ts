export { liveCheckKinds } from './liveChecks';
export type {
  EditCheck,
  LiveCheck,
  LiveCheckKind,
  LiveEdits,
  LiveQuestions,
  LiveResults,
  LiveRobots,
  LiveSitemap,
  LiveVariant,
} from './liveChecks';
