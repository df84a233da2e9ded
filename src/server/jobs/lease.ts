import { sql } from 'drizzle-orm';

/** How long a lease holds without being renewed. */
export const LEASE_SECONDS = 30;
export const leaseEnd = sql<Date>`current_timestamp(3) + interval ${sql.raw(String(LEASE_SECONDS))} second`;
