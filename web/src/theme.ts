const KEY = "kobbin-theme";
const CHANGED = "kobbin-theme";

export type Theme = "light" | "dark";

const wished = (): Theme => {
  const kept = localStorage.getItem(KEY);
  if (kept === "light" || kept === "dark") return kept;
  return matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
};

/** Puts the theme on the page before the first paint and follows the system until a person chooses. */
export function startTheme(): void {
  document.documentElement.dataset.theme = wished();
  matchMedia("(prefers-color-scheme: dark)").addEventListener("change", () => {
    if (!localStorage.getItem(KEY)) document.documentElement.dataset.theme = wished();
    window.dispatchEvent(new Event(CHANGED));
  });
}

/** Calls back whenever the theme changed. @returns what ends that */
export function onTheme(changed: () => void): () => void {
  window.addEventListener(CHANGED, changed);
  return () => window.removeEventListener(CHANGED, changed);
}

export const currentTheme = (): Theme =>
  document.documentElement.dataset.theme === "dark" ? "dark" : "light";

/** Switches between paper and bench at night. */
export function toggleTheme(): void {
  const next = currentTheme() === "dark" ? "light" : "dark";
  localStorage.setItem(KEY, next);
  document.documentElement.dataset.theme = next;
  window.dispatchEvent(new Event(CHANGED));
}
