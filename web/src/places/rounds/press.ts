/** What stands between whoever presses a trip button and whoever watches the board, as far as it is told here. */

import type { Round } from "../../api/client";
import type { RoundBody } from "../../api/outbox/waiting";

export type Pressed = Pick<NonNullable<Round["press"]>, "point" | "name" | "state">;

/** As the server knows it, and then what waits to be sent, in order. */
export function pressWith(
  known: Pressed | null,
  waiting: RoundBody[],
  stops: { id: string; name: string }[],
): Pressed | null {
  let press = known;
  for (const { kind, point, tripped } of waiting) {
    const name = stops.find((stop) => stop.id === point)?.name ?? "";
    if (kind === "pressed") press = { point, name, state: "pressed" };
    if (kind === "watched") press = tripped ? { point, name, state: "dark" } : null;
    if (kind === "reset") press = null;
  }
  return press;
}
