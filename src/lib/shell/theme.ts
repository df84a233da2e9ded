/** Changes between the light and the dark theme, and remembers which. */
export function switchTheme(): void {
  const root = document.documentElement;
  root.dataset.theme = root.dataset.theme === 'night' ? 'paper' : 'night';
  localStorage.setItem('edgemap.theme', root.dataset.theme);
}
