import { useEffect } from "react";

const SCHEME = "data-mantine-color-scheme";

/** What is printed is dark on white, whatever the screen is. */
export function useLightOnPaper() {
  useEffect(() => {
    const root = document.documentElement;
    let onScreen: string | null = null;
    const before = () => {
      onScreen = root.getAttribute(SCHEME);
      root.setAttribute(SCHEME, "light");
    };
    const after = () => {
      if (onScreen !== null) root.setAttribute(SCHEME, onScreen);
    };
    window.addEventListener("beforeprint", before);
    window.addEventListener("afterprint", after);
    return () => {
      window.removeEventListener("beforeprint", before);
      window.removeEventListener("afterprint", after);
    };
  }, []);
}
