import type { Message } from '$core/messages';
import type { Watched } from '$core/closedSite';
import type { stateLabel } from '../shell/words';

/** What the watching screen is told of a crawl. */
export interface WatchState {
  state: keyof typeof stateLabel;
  reason: Message | null;
  known: number;
  done: number;
  unanswered: number;
  bytes: number;
  current: string | null;
  /** Milliseconds for which it has run. */
  ranMs: number;
  /** When it was last analysed, which a running crawl is now and then. */
  analysedAt?: Date | string | null;
  watched?: Watched;
}
