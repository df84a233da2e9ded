/** Loads something when it is first asked for, and keeps it; what failed is tried again the next time. */
export function loadedOnce<T>(load: () => Promise<T>): () => Promise<T> {
  let loading: Promise<T> | null = null;
  return () =>
    (loading ??= load().catch((error: unknown) => {
      loading = null;
      throw error;
    }));
}

/** Does work that comes in slices at once. */
export function atOnce<T>(slices: Generator<void, T>): T {
  for (;;) {
    const { done, value } = slices.next();
    if (done) return value;
  }
}
