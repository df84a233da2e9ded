/**
 * Reads the content of a meta refresh (HTML, "shared declarative refresh steps").
 * @returns the address as written, or null when the page only reloads itself or the text is not a refresh
 */
export function readRefresh(content: string): string | null {
  const time = /^\s*[\d.]+/.exec(content)?.[0];
  if (time === undefined) return null;
  const rest = content.slice(time.length);
  const after = rest.trimStart();
  // Something must stand between the time and the address.
  if (after === rest && !/^[;,]/.test(rest)) return null;
  const text = after
    .replace(/^[;,]/, '')
    .trimStart()
    .replace(/^url\s*=/i, '')
    .trim();
  if (!text) return null;
  const quote = text[0];
  if (quote !== '"' && quote !== "'") return text;
  const end = text.indexOf(quote, 1);
  return text.slice(1, end < 0 ? undefined : end).trim() || null;
}
