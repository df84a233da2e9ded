import type { FetchError } from '$core/verdict';
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
  watched?: {
    waiting: { label: string; n: number }[];
    outcomes: { label: string; n: number; bad: boolean }[];
    held: { host: string; wait: number; reason: string }[];
    newest: { address: string; status: number | null; error: FetchError | null; blocked: boolean }[];
    warning: string | null;
    traps: number;
    workers: number;
  };
}
