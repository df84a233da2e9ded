import { constants, setPriority } from 'node:os';

/** What a thread of an analysis is told as it starts. */
export interface ThreadData {
  /** Whether a crawl goes on meanwhile, which it must not hold up. */
  isBeside: boolean;
}

/**
 * Leaves the processor to others when they want it. On Linux priorities are those of threads, and only the calling one
 * stands back; elsewhere they are those of the whole program, and nothing is done.
 */
export function standBack(): void {
  if (process.platform === 'linux') setPriority(constants.priority.PRIORITY_BELOW_NORMAL);
}
