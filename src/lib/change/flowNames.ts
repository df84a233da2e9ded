/** How the values of a category of Change are called, and which colour they have. */
import type { FlowCategory } from '$core/answers';
import type { Reach, Verdict } from '$core/facts';
import { reachLabel, verdictLabel } from '../shell/words';
import { texts } from './texts';

/** The name of a value. */
export function valueName(category: FlowCategory, value: string): string {
  if (category === 'verdict') return verdictLabel[value as Verdict];
  if (category === 'reach') return reachLabel[value as Reach];
  if (category === 'depth') return value === '' ? texts.noRoute : texts.clicks(value);
  if (category === 'finding') return value === 'with' ? texts.with : texts.without;
  return value === '…' ? texts.otherSections : value;
}

/** The variable of its colour. */
export const colourOf = (category: FlowCategory, value: string): string =>
  category === 'verdict'
    ? `--v-${value}`
    : (category === 'reach' && value !== 'reached') || (category === 'depth' && value === '') || value === 'with'
      ? '--lost'
      : '--color-primary';
