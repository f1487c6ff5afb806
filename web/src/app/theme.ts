/** Light, dark, or as the system says; remembered on this machine. */
export type Theme = "system" | "light" | "dark";
const KEY = "rosy-kettle-theme";

export function chosenTheme(): Theme {
  const kept = localStorage.getItem(KEY);
  return kept === "light" || kept === "dark" ? kept : "system";
}

export function applyTheme(theme: Theme = chosenTheme()): void {
  const dark = theme === "dark" || (theme === "system" && matchMedia("(prefers-color-scheme: dark)").matches);
  document.documentElement.dataset.theme = dark ? "dark" : "light";
}

export function chooseTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  applyTheme(theme);
}

matchMedia("(prefers-color-scheme: dark)").addEventListener("change", () => applyTheme());
