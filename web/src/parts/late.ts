import { type ComponentType, type LazyExoticComponent, lazy } from "react";

type Load<P> = () => Promise<{ default: ComponentType<P> }>;

const loads: (() => Promise<unknown>)[] = [];

/** What is loaded when it is first shown, and ahead, for it is wanted most where there is no line. */
export function late<P>(load: Load<P>): LazyExoticComponent<ComponentType<P>> {
  loads.push(load);
  return lazy(load);
}

/** One after the other; what does not come is asked for when it is shown. */
export async function loadAhead() {
  for (const load of loads) await load().catch(() => {});
}
