import { useSyncExternalStore } from "react";

/** The colours of the theme for what is not drawn by style sheets, told anew when the theme changes. */
export function useThemeColours(): (name: string) => string {
  const theme = useSyncExternalStore(subscribe, themeNow);
  const styles = theme === "" ? undefined : getComputedStyle(document.documentElement);
  return (name) => styles?.getPropertyValue(`--color-${name}`).trim() ?? "";
}

const dark = window.matchMedia("(prefers-color-scheme: dark)");

function themeNow(): string {
  return `${document.documentElement.dataset.theme ?? "system"} ${dark.matches}`;
}

function subscribe(changed: () => void): () => void {
  const watch = new MutationObserver(changed);
  watch.observe(document.documentElement, { attributeFilter: ["data-theme"] });
  dark.addEventListener("change", changed);
  return () => {
    watch.disconnect();
    dark.removeEventListener("change", changed);
  };
}
