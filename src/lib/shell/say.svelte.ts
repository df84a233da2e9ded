/** What the program has to say to whoever acts: shown for a while, and read out by screen readers. */
let saying = $state.raw<{ text: string; wrong: boolean; at: number } | null>(null);
const SHOWN_MS = 5000;

/** Says that something was done, or could not be. */
export function say(text: string, wrong = false): void {
  const own = { text, wrong, at: Date.now() };
  saying = own;
  setTimeout(() => {
    if (saying === own) saying = null;
  }, SHOWN_MS);
}
export const said = () => saying;
