export type Theme = "system" | "paper" | "lamp";

const KEY = "fiscalon.theme";

export function chosenTheme(): Theme {
  const kept = localStorage.getItem(KEY);
  return kept === "paper" || kept === "lamp" ? kept : "system";
}

/** `system` follows the machine; the other two are light and dark. */
export function applyTheme(theme: Theme): void {
  if (theme === "system") document.documentElement.removeAttribute("data-theme");
  else document.documentElement.setAttribute("data-theme", theme);
  localStorage.setItem(KEY, theme);
}
