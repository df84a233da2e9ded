const LOOK_MS = 1000;

/**
 * Calls back once the process that started this one is gone, if that process supervises it (EDGEMAP_SUPERVISED):
 * without it nobody would stop this one.
 */
export function onOrphaned(end: () => void, env: NodeJS.ProcessEnv = process.env): void {
  if (!env.EDGEMAP_SUPERVISED) return;
  const parent = process.ppid;
  const timer = setInterval(() => {
    if (process.ppid === parent) return;
    clearInterval(timer);
    end();
  }, LOOK_MS);
  timer.unref();
}
