/** The sun theme: highest contrast for work on the roof. Remembered on this device. */
export type Theme = "shop" | "sun";

export const currentTheme = (): Theme => (localStorage.getItem("theme") === "sun" ? "sun" : "shop");

export function applyTheme(theme: Theme = currentTheme()): void {
  localStorage.setItem("theme", theme);
  document.documentElement.dataset.theme = theme;
}
