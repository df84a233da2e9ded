import { setTimeout as sleep } from 'node:timers/promises';

/** Reservations reach so far into the future, so that other workers get their turn. */
const AHEAD_MS = 500;
/** A host that says it is asked too often is asked more slowly from then on, between these. */
const SLOWER_MS = 200;
const SLOWEST_MS = 5000;

/** What keeps the pace of hosts for all workers together: the database. */
export interface SharedPace {
  reserve: (host: string, everyMs: number, count: number) => Promise<number[]>;
  hold: (host: string, ms: number, reason: string) => Promise<unknown>;
}

export interface Pace {
  /** Waits until a host may be asked. */
  turn: (host: string) => Promise<void>;
  /** Leaves a host alone for a while, and asks it more slowly afterwards. */
  hold: (host: string, ms: number, reason: string) => Promise<void>;
  /** Whether a host wants to be left alone now. */
  isHeld: (host: string) => boolean;
  /** Takes over what other workers were told. */
  learn: (held: readonly { host: string; wait: number }[]) => void;
  /** Seconds that the robots.txt of a host asks to leave between requests. */
  setDelay: (host: string, seconds: number) => void;
}

/** Keeps requests to each host apart as settings, robots.txt and the host itself ask for. */
export function paceOf(rate: number | null, shared: SharedPace, signal: AbortSignal): Pace {
  /** Milliseconds between requests by host. */
  const delays = new Map<string, number>();
  const heldUntil = new Map<string, number>();
  /** Moments at which reserved requests may begin. */
  const reserved = new Map<string, number[]>();
  const reserving = new Map<string, Promise<void>>();
  const fromRate = rate === null ? 0 : 1000 / rate;
  const everyOf = (host: string) => Math.max(fromRate, delays.get(host) ?? 0);
  const pause = (ms: number) => sleep(ms, undefined, { signal }).catch(() => {});

  async function reserve(host: string, every: number): Promise<void> {
    const waits = await shared.reserve(host, every, Math.max(1, Math.floor(AHEAD_MS / every)));
    const now = Date.now();
    reserved.set(
      host,
      waits.map((wait) => now + wait),
    );
  }

  return {
    async turn(host) {
      for (;;) {
        const wait = (heldUntil.get(host) ?? 0) - Date.now();
        if (wait > 0) await pause(wait);
        if (signal.aborted) return;
        const every = everyOf(host);
        if (every === 0) return;
        const at = reserved.get(host)?.shift();
        if (at !== undefined) {
          if (at > Date.now()) await pause(at - Date.now());
          // What was reserved before the host asked for silence does not count.
          if ((heldUntil.get(host) ?? 0) <= Date.now()) return;
          continue;
        }
        let making = reserving.get(host);
        if (!making) {
          making = reserve(host, every).finally(() => reserving.delete(host));
          reserving.set(host, making);
        }
        await making;
      }
    },
    async hold(host, ms, reason) {
      heldUntil.set(host, Math.max(heldUntil.get(host) ?? 0, Date.now() + ms));
      const every = everyOf(host);
      delays.set(host, Math.max(every, Math.min(SLOWEST_MS, Math.max(SLOWER_MS, 2 * every))));
      reserved.delete(host);
      await shared.hold(host, ms, reason);
    },
    isHeld: (host) => (heldUntil.get(host) ?? 0) > Date.now(),
    learn: (held) => {
      for (const { host, wait } of held) heldUntil.set(host, Math.max(heldUntil.get(host) ?? 0, Date.now() + wait));
    },
    setDelay: (host, seconds) => void delays.set(host, Math.max(delays.get(host) ?? 0, seconds * 1000)),
  };
}
