/** What the program has to say to whoever acts: shown for a while, and read out by screen readers. */
interface Saying {
  text: string;
  wrong: boolean;
  /** What can be done about it while it is shown. */
  action: { label: string; run: () => void } | null;
}
let saying = $state.raw<Saying | null>(null);
const SHOWN_MS = 5000;

function show(own: Saying, ms: number): void {
  saying = own;
  setTimeout(() => {
    if (saying === own) saying = null;
  }, ms);
}

/** Says that something was done, or could not be. */
export const say = (text: string, wrong = false): void => show({ text, wrong, action: null }, SHOWN_MS);

/** Says that something was done and can be undone for so many seconds. */
export const sayUndoable = (text: string, seconds: number, undo: () => void): void =>
  show({ text, wrong: false, action: { label: 'Undo', run: undo } }, seconds * 1000);

export const said = () => saying;
export const unsay = (): void => void (saying = null);
