/** The wordings of all pages of a view, kept with it: a large site takes seconds to read. */
import type { View } from '$core/view';
import { wordingsOf } from '$core/wordings';
import { keepBeside } from '../snapshots';

type Wordings = ReturnType<typeof wordingsOf>;
/** What one wording takes, roughly. */
const BYTES_EACH = 300;

const kept = new WeakMap<View, Wordings>();

export function openWordings(view: View): Wordings {
  const known = kept.get(view);
  if (known) return known;
  const wordings = wordingsOf(view);
  kept.set(view, wordings);
  const bytes = BYTES_EACH * [...wordings.values()].reduce((sum, own) => sum + own.length, 0);
  keepBeside(view, 'wordings', () => bytes);
  return wordings;
}
