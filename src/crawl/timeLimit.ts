/** The end of a time, or of what it belongs to. */
export interface TimeLimit {
  /** Aborted with a `TimeoutError`, or with the reason of the outer signal. */
  signal: AbortSignal;
  /** To be called when it is needed no more. */
  clear: () => void;
}

/** Limits a time. By hand: signals combined from others may be collected before they fire (Node 20). */
export function timeLimit(ms: number, outer?: AbortSignal): TimeLimit {
  const whole = new AbortController();
  const giveUp = () => whole.abort(outer!.reason);
  const timer = setTimeout(() => whole.abort(new DOMException('No answer in time.', 'TimeoutError')), ms);
  outer?.addEventListener('abort', giveUp);
  if (outer?.aborted) giveUp();
  return {
    signal: whole.signal,
    clear: () => {
      clearTimeout(timer);
      outer?.removeEventListener('abort', giveUp);
    },
  };
}
