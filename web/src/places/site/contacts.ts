import type { Practice } from "../../api/client";

/** The contacts an outlet or a box can have on a supply, by what people call them. */
export function contactChoices(practice: Practice | undefined, system: string): Record<string, string[]> {
  const choices = practice?.systems.find((s) => s.id === system)?.contacts ?? [];
  return Object.fromEntries(choices.map(({ name, terminals }) => [name, terminals]));
}
