/** Which step of the tour is shown; it stays through the screens, and through a reload. */
const KEY = 'edgemap.tour';
let step = $state<number | null>(null);

/** The step of the tour that is shown, from 0; null when none is. */
export const tourStep = () => step;

export function showStep(next: number | null): void {
  step = next !== null && next >= 0 ? next : null;
  try {
    if (step === null) sessionStorage.removeItem(KEY);
    else sessionStorage.setItem(KEY, String(step));
  } catch {
    // Without storage it only does not last through a reload.
  }
}

/** Goes on where a reload has interrupted the tour. */
export function resumeTour(): void {
  try {
    const kept = sessionStorage.getItem(KEY);
    if (kept !== null && step === null) showStep(Number(kept));
  } catch {
    // As above.
  }
}
