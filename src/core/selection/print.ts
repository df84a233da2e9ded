import type { Selection } from './parse';

/** A number in digits only, as the language writes it. */
const digits = (value: number) => value.toLocaleString('en', { useGrouping: false, maximumFractionDigits: 20 });

/** A quotation of the language. */
export const quote = (value: string) => `"${value.replace(/["\\]/g, '\\$&')}"`;
const written = (value: string | number) => (typeof value === 'number' ? digits(value) : quote(value));

/** Adds a test to a selection, both as text; the selection stays as it was written. */
export function narrowed(select: string, test: string): string {
  if (!select.trim()) return test;
  // Brackets too many do no harm.
  const bracketed = (text: string) => (/\bor\b/.test(text) ? `(${text})` : text);
  return `${bracketed(select.trim())} and ${bracketed(test)}`;
}

/** How tightly a selection binds: what binds looser than its place asks for stands in brackets. */
const binding = { or: 1, and: 2 } as const;

/** Writes a selection as text; parsed again, it is the same. */
export function printSelection(selection: Selection): string {
  return print(selection, 1);

  function print(part: Selection, least: number): string {
    switch (part.op) {
      case 'all':
        return '';
      case 'and':
      case 'or': {
        const own = binding[part.op];
        const joined = `${print(part.left, own)} ${part.op} ${print(part.right, own + 1)}`;
        return own < least ? `(${joined})` : joined;
      }
      case 'not':
        return `not ${print(part.of, 3)}`;
      case 'flag':
        return part.fact;
      case 'unknown':
        return `${part.fact} is unknown`;
      case 'seen':
        return `seen in ${part.source}`;
      case 'compare':
        return `${part.fact} ${part.comparison} ${written(part.value)}`;
      case 'in':
        return `${part.fact} in (${part.values.map(written).join(', ')})`;
      case 'step':
        return `${part.step} (${print(part.of, 1)})`;
      case 'within':
        return `within ${digits(part.clicks)} of (${print(part.of, 1)})`;
    }
  }
}
