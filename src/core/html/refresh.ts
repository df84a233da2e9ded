/**
 * Reads the content of a meta refresh (HTML, "shared declarative refresh steps").
 * @returns the address as written, or null when the page only reloads itself or the text is not a refresh
 */
export function readRefresh(content: string): string | null {
  const found = /^\s*(?:\d+|\.)[\d.]*\s*(?:[;,]|\s)\s*(?:url\s*=\s*)?([^]*)$/i.exec(content);
  const text = found?.[1].trim();
  if (!text) return null;
  const quote = text[0];
  if (quote !== '"' && quote !== "'") return text;
  const end = text.indexOf(quote, 1);
  return text.slice(1, end < 0 ? undefined : end).trim() || null;
}
