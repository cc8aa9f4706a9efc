/** A site's circuits that have points, board by board, to choose from. */

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
