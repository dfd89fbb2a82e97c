const KEY = "kobbin-theme";

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
    window.dispatchEvent(new Event("kobbin-theme"));
  });
}

export const currentTheme = (): Theme =>
  document.documentElement.dataset.theme === "dark" ? "dark" : "light";

/** Switches between paper and bench at night. */
export function toggleTheme(): void {
  const next = currentTheme() === "dark" ? "light" : "dark";
  localStorage.setItem(KEY, next);
  document.documentElement.dataset.theme = next;
  window.dispatchEvent(new Event("kobbin-theme"));
}
