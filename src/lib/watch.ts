import type { Watched } from '$core/watch';
import type { stateLabel } from './words';

/** What the watching screen is told of a crawl. */
export interface WatchTold {
  state: keyof typeof stateLabel;
  reason: string | null;
  known: number;
  done: number;
  unanswered: number;
  bytes: number;
  current: string | null;
  /** Milliseconds for which it has run. */
  ranMs: number;
  watched?: Watched;
}
