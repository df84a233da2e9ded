/** Selections that a person has used lately, for each site, kept in the browser. */
const MOST = 20;
const keyOf = (site: number, over: string) => `edgemap.recent.${site}.${over}`;

export function recentSelections(site: number, over: 'pages' | 'links'): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(keyOf(site, over)) ?? '[]');
    return Array.isArray(kept) ? kept.filter((text) => typeof text === 'string') : [];
  } catch {
    return [];
  }
}

export function rememberSelection(site: number, over: 'pages' | 'links', select: string): void {
  const text = select.trim();
  if (!text) return;
  const kept = [text, ...recentSelections(site, over).filter((other) => other !== text)].slice(0, MOST);
  try {
    localStorage.setItem(keyOf(site, over), JSON.stringify(kept));
  } catch {
    // A browser that keeps nothing loses only this.
  }
}
