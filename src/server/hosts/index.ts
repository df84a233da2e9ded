export { backOff, hostLimits, recoveredDelay, reserveRequests } from './limits';
export type { HostLimit } from './limits';
