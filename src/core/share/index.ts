export { sectionFlow, shareAround } from './flows';
export type { Carried, SectionFlow } from './flows';
export { knownShare, leaksOf, plainShare, shareModels, siteShare } from './models';
export type { Leak, Share, ShareModel } from './models';
export { peerShares } from './peers';
export { DAMPING, pageRank } from './pagerank';
export { evenWeights } from './pairs';
export type { PlacementWeights } from './pairs';
export { finalTargetsOf, findFinalTargets } from './targets';
