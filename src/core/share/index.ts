export { sectionFlow, shareAround } from './flows';
export type { Carried, SectionFlow, ShareAround } from './flows';
export { knownShare, leaksOf, plainShare, shareModels, siteShare } from './models';
export type { Leak, LeakCause, Share, ShareBase, ShareModel } from './models';
export { DAMPING, pageRank } from './pagerank';
export type { ShareGraph } from './pagerank';
export { evenWeights } from './pairs';
export type { PlacementWeights } from './pairs';
export { finalTargetsOf, findFinalTargets } from './targets';
