import { backOff, reserveRequests, retryOutage } from '$server/index';
import type { Database } from '$server/index';
import { hostLimiter } from './hostLimiter';
import type { HostLimiter } from './hostLimiter';

/** A rate limiter that shares what it knows of hosts with all workers. @param rate requests a second to one host */
export const sharedLimiter = (db: Database, rate: number | null): HostLimiter =>
  hostLimiter(rate, {
    reserve: (host, every, count) => retryOutage(() => reserveRequests(db, host, every, count)),
    backOff: (host, hold, every, reason) => retryOutage(() => backOff(db, host, hold, every, reason)),
  });
