/**
 * The field of addresses that a person knows from elsewhere. It is no setting: the list is kept apart, as an import.
 */
import { identify } from '$core/url';
import type { Faults } from './settingsForm';

/** Lists of more addresses are not shown in the field; typing others replaces them. */
export const MOST_SHOWN = 5000;

/** Reads the field, an address a line; what is wrong is noted. */
export function readList(form: FormData, faults: Faults): string[] {
  const lines = String(form.get('lists') ?? '')
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
  return lines.flatMap((line) => {
    const address = identify(line)?.address;
    if (!address) faults.lists ??= `“${line}” is not a URL.`;
    return address ?? [];
  });
}

/** Whether a list that is too long to be shown stays as it is: nothing was typed, and it is not to be removed. */
export const leavesList = (form: FormData): boolean =>
  form.has('longList') && String(form.get('lists') ?? '').trim() === '' && form.get('removeList') !== 'on';
