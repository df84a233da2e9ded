/** What a key does in a list. */

export type RowCommand =
  | { op: 'move'; to: number; extend: boolean }
  | { op: 'column'; by: 1 | -1 }
  | { op: 'open' | 'pick' | 'pickAll' | 'copy' | 'clear' };

type Pressed = Pick<KeyboardEvent, 'key' | 'shiftKey' | 'ctrlKey' | 'metaKey'>;

/**
 * @param at the place of the active row, how many rows there are, and how many are in sight
 * @returns null for a key that the list leaves to others
 */
export function rowCommand(
  { key, shiftKey, ctrlKey, metaKey }: Pressed,
  { active, total, page }: { active: number; total: number; page: number },
): RowCommand | null {
  const steps: Record<string, number> = {
    ArrowDown: active + 1,
    ArrowUp: active - 1,
    PageDown: active + page,
    PageUp: active - page,
    Home: 0,
    End: total - 1,
  };
  if (key in steps) return { op: 'move', to: Math.max(0, Math.min(total - 1, steps[key])), extend: shiftKey };
  if (key === 'ArrowRight') return { op: 'column', by: 1 };
  if (key === 'ArrowLeft') return { op: 'column', by: -1 };
  if (key === 'Enter') return { op: 'open' };
  if (key === 'Escape') return { op: 'clear' };
  if (ctrlKey || metaKey) return key === 'a' ? { op: 'pickAll' } : key === 'c' ? { op: 'copy' } : null;
  return key === 'x' ? { op: 'pick' } : null;
}
