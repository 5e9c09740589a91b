export type Theme = 'day' | 'scope';

const listeners = new Set<() => void>();

/** The theme now: what the server put on the page, or what was chosen since. */
export function currentTheme(): Theme {
  return document.documentElement.dataset.theme === 'scope' ? 'scope' : 'day';
}

/** Changes the theme and remembers it in a cookie, so that the server paints the first page right. */
export function setTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  document.cookie = `theme=${theme}; path=/; max-age=31536000; samesite=lax`;
  for (const listener of listeners) listener();
}

export function onThemeChange(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
