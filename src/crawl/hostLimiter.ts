import { setTimeout as sleep } from 'node:timers/promises';
import type { Message } from '$core/messages';
import { recoveredDelay } from '$server/index';
import type { HostLimit } from '$server/index';

/** Reservations reach so far into the future, so that other workers get their turn. */
const AHEAD_MS = 500;

/** A host is left that has made the crawl wait so often in a row, and so long in all. */
const HOLDS_IN_A_ROW = 3;
const HELD_MS = 5 * 60_000;

/** What all workers share: the limits of hosts in the database. */
export interface SharedLimits {
  reserve: (host: string, everyMs: number, count: number) => Promise<number[]>;
  /** @returns the delay between requests to the host from now on, in milliseconds */
  backOff: (host: string, holdMs: number, everyMs: number, reason: Message) => Promise<number>;
}

/** Keeps requests to each host apart as settings, robots.txt and the host itself ask for. */
export interface HostLimiter {
  /** Waits until a host may be asked. @param signal ends the waiting */
  wait: (host: string, signal: AbortSignal) => Promise<void>;
  /** Leaves a host alone for a while, and asks it more slowly afterwards. */
  backOff: (host: string, holdMs: number, reason: Message) => Promise<void>;
  /** Notes that a host has answered, and not asked to wait. */
  answered: (host: string) => void;
  /** Whether a host gets no requests now. */
  isHeld: (host: string) => boolean;
  /** Whether a host has asked to wait so often, and answered nothing else, that it is not asked again. */
  isLeft: (host: string) => boolean;
  /** Takes over what all workers know of hosts that complained. */
  learn: (limits: readonly HostLimit[]) => void;
  /** Seconds that the robots.txt of a host asks to leave between requests. */
  setCrawlDelay: (host: string, seconds: number) => void;
}

/**
 * Makes the rate limiter of one worker.
 * @param rate requests a second to one host by the settings; null for as many as the connections allow
 */
export function hostLimiter(rate: number | null, shared: SharedLimits): HostLimiter {
  const fromRate = rate === null ? 0 : 1000 / rate;
  /** Milliseconds between requests by robots.txt. */
  const crawlDelays = new Map<string, number>();
  /** Milliseconds between requests because the host complained, and when they were learned. */
  const backOffs = new Map<string, { delay: number; at: number }>();
  const heldUntil = new Map<string, number>();
  /** How often hosts have asked to wait since they last answered, and for how long. */
  const heldInARow = new Map<string, { times: number; ms: number }>();
  /** Moments at which reserved requests may begin. */
  const reserved = new Map<string, number[]>();
  const reserving = new Map<string, Promise<void>>();

  const ownEvery = (host: string) => Math.max(fromRate, crawlDelays.get(host) ?? 0);
  const every = (host: string) => {
    const backedOff = backOffs.get(host);
    return Math.max(ownEvery(host), backedOff ? recoveredDelay(backedOff.delay, Date.now() - backedOff.at) : 0);
  };
  const isHeld = (host: string) => (heldUntil.get(host) ?? 0) > Date.now();
  const holdUntil = (host: string, at: number) => heldUntil.set(host, Math.max(heldUntil.get(host) ?? 0, at));

  async function reserve(host: string, everyMs: number): Promise<void> {
    const waits = await shared.reserve(host, everyMs, Math.max(1, Math.floor(AHEAD_MS / everyMs)));
    const now = Date.now();
    reserved.set(
      host,
      waits.map((wait) => now + wait),
    );
  }

  async function wait(host: string, signal: AbortSignal): Promise<void> {
    const pause = (ms: number) => sleep(ms, undefined, { signal }).catch(() => {});
    for (;;) {
      const hold = (heldUntil.get(host) ?? 0) - Date.now();
      if (hold > 0) await pause(hold);
      if (signal.aborted) return;
      const everyMs = every(host);
      if (everyMs === 0) return;
      const at = reserved.get(host)?.shift();
      if (at !== undefined) {
        if (at > Date.now()) await pause(at - Date.now());
        // What was reserved before the host complained does not count.
        if (!isHeld(host)) return;
        continue;
      }
      let making = reserving.get(host);
      if (!making) {
        making = reserve(host, everyMs).finally(() => reserving.delete(host));
        reserving.set(host, making);
      }
      await making;
    }
  }

  return {
    wait,
    isHeld,
    answered: (host) => void heldInARow.delete(host),
    isLeft: (host) => {
      const { times, ms } = heldInARow.get(host) ?? { times: 0, ms: 0 };
      return times >= HOLDS_IN_A_ROW && ms >= HELD_MS;
    },
    async backOff(host, holdMs, reason) {
      // Requests that were under way together complain together.
      const before = heldInARow.get(host) ?? { times: 0, ms: 0 };
      if (!isHeld(host)) heldInARow.set(host, { times: before.times + 1, ms: before.ms + holdMs });
      holdUntil(host, Date.now() + holdMs);
      reserved.delete(host);
      const delay = await shared.backOff(host, holdMs, ownEvery(host), reason);
      backOffs.set(host, { delay, at: Date.now() });
    },
    learn: (limits) => {
      for (const { host, wait, delay } of limits) {
        if (wait > 0) holdUntil(host, Date.now() + wait);
        if (delay > 0) backOffs.set(host, { delay, at: Date.now() });
      }
    },
    setCrawlDelay: (host, seconds) => void crawlDelays.set(host, Math.max(crawlDelays.get(host) ?? 0, seconds * 1000)),
  };
}
