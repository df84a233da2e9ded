import type { FetchError } from '../facts';
import type { Message } from '../messages';

/** What a person sees of a running crawl besides its counts. */
export interface Watched {
  /** What waits, by clicks from the start, and what else waits. */
  waiting: { what: Message; n: number }[];
  /** Answers and failures by kind, the most frequent first. */
  outcomes: { what: Message; n: number; bad: boolean }[];
  /** Hosts that are left alone for a while, and why; milliseconds until they are asked again. */
  held: { host: string; wait: number; reason: Message }[];
  newest: { address: string; status: number | null; error: FetchError | null; blocked: boolean }[];
  /** When the site is closed to this crawl. */
  warning: Message | null;
  /** What keeps the crawl from going on, or did a moment ago. */
  trouble: Message | null;
  /** Families cut by the trap guard so far. */
  traps: number;
  workers: number;
  /** How far the analysis is, once it has begun. */
  analysis: { step: string | null; stepsDone: number; steps: number } | null;
}
