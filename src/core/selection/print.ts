/** A quotation of the language. */
export const quote = (value: string) => `"${value.replace(/["\\]/g, '\\$&')}"`;

/** Adds a test to a selection, both as text; the selection stays as it was written. */
export function narrowed(select: string, test: string): string {
  if (!select.trim()) return test;
  // Brackets too many do no harm.
  const bracketed = (text: string) => (/\bor\b/.test(text) ? `(${text})` : text);
  return `${bracketed(select.trim())} and ${bracketed(test)}`;
}
