import type { Site } from "../../api/client";

/** The rooms its points are said to be in, by name. */
export const roomsOf = (site: Site): string[] => {
  const points = site.supplies.flatMap((s) => s.boards.flatMap((b) => b.circuits.flatMap((c) => c.points)));
  return [...new Set(points.map((p) => p.room).filter((room) => room !== ""))].sort();
};
