const HEARTBEAT_MS = 500;

/** Calls something again and again; a call that fails, or is still under way, is no reason to stop. */
export function heartbeat(beat: () => Promise<void>): () => Promise<void> {
  let beating: Promise<void> | null = null;
  const timer = setInterval(() => {
    // The crawl itself meets a lost database too, and waits for it.
    beating ??= beat()
      .catch(() => {})
      .finally(() => (beating = null));
  }, HEARTBEAT_MS);
  return async () => {
    clearInterval(timer);
    await beating;
  };
}
