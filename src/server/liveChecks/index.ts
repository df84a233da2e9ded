export { askLiveCheck, endLiveCheck, leaseLiveCheck, LIVE_BEAT_MS, liveChecksOf, renewLiveCheck } from './liveChecks';
export type { LeasedCheck } from './liveChecks';
