import { useSyncExternalStore } from "react";

/** Of this device: readings and verdict twice as large, and read aloud. */
export type Setting = "big" | "aloud";

const KEY = "even-probe.setting ";
const listeners = new Set<() => void>();

const isOn = (setting: Setting) => localStorage.getItem(KEY + setting) === "on";

const watch = (told: () => void) => {
  listeners.add(told);
  return () => {
    listeners.delete(told);
  };
};

export function useSetting(setting: Setting): [boolean, () => void] {
  const on = useSyncExternalStore(watch, () => isOn(setting));
  const toggle = () => {
    localStorage.setItem(KEY + setting, on ? "off" : "on");
    for (const told of listeners) told();
  };
  return [on, toggle];
}
