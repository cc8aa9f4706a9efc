/** A site's circuits that have points, board by board, and its boards, to choose from. */

import type { Site } from "../../api/client";

type Choices = { group: string; items: { value: string; label: string }[] }[];

export const circuitsOf = (site: Site, value: (circuit: string) => string = (circuit) => circuit): Choices =>
  site.supplies
    .flatMap((supply) => supply.boards)
    .map((board) => ({
      group: board.name,
      items: board.circuits
        .filter((circuit) => circuit.points.length > 0)
        .map((circuit) => ({ value: value(circuit.id), label: circuit.name })),
    }))
    .filter((group) => group.items.length > 0);

export const boardsOf = (site: Site): { value: string; label: string }[] =>
  site.supplies.flatMap((supply) => supply.boards).map((board) => ({ value: board.id, label: board.name }));
