import { useEffect, useRef } from "react";
import { useLocation } from "react-router";

const NAME = "Even Probe";

/**
 * Arriving at a place: its heading is the window's title and has the focus, where nothing in it takes the focus itself.
 * The place may still be on its way, so that it is awaited.
 */
export function useArrival() {
  const main = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  // biome-ignore lint/correctness/useExhaustiveDependencies: each place anew
  useEffect(() => {
    const place = main.current;
    if (!place) return;
    let arrived = false;
    const look = () => {
      const heading = place.querySelector<HTMLElement>("h1");
      if (!heading) return;
      document.title = `${heading.textContent}, ${NAME}`;
      if (arrived) return;
      arrived = true;
      const held = document.activeElement;
      if (held && held !== document.body && (place.contains(held) || held.closest("[role=dialog]"))) return;
      heading.tabIndex = -1;
      heading.focus({ preventScroll: true });
    };
    document.title = NAME;
    look();
    const watching = new MutationObserver(look);
    watching.observe(place, { childList: true, subtree: true, characterData: true });
    return () => watching.disconnect();
  }, [pathname]);
  return main;
}
