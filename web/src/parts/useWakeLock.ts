import { useEffect } from "react";

/** Keeps the screen on while something runs on it, where the browser can; given back when the page is hidden. */
export function useWakeLock(active: boolean) {
  useEffect(() => {
    if (!active || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const ask = async () => {
      if (document.visibilityState !== "visible") return;
      const given = await navigator.wakeLock.request("screen").catch(() => null);
      if (over) await given?.release();
      else lock = given;
    };
    void ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, [active]);
}
