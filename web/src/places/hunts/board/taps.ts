/** What was tapped at outlets, at the server or on its way there. */

import type { OverBoard } from "../../../api/client";
import type { HuntBody, Waiting } from "../../../api/outbox/waiting";

type Tap = { outlet: string; round: number; live: boolean };

const isTap = (entry: object): entry is Tap => "outlet" in entry && "live" in entry;

/** The outlets with what is on its way told as well. */
export function withTaps(map: OverBoard, told: Waiting[]): OverBoard["outlets"] {
  const taps = told
    .map((one) => one.body as HuntBody)
    .filter((body) => body.kind === "seen")
    .map((body) => body.entry as object)
    .filter(isTap);
  return map.outlets.map((outlet) => ({
    ...outlet,
    live: outlet.live.map(
      (live, index) =>
        live ?? taps.find((tap) => tap.outlet === outlet.id && tap.round === index + 1)?.live ?? null,
    ),
  }));
}

/** The first round in which an outlet was not looked at, from 1; none where all were. */
export function roundNow(outlets: OverBoard["outlets"]): number | null {
  const rounds = outlets[0]?.live.length ?? 0;
  for (let index = 0; index < rounds; index++)
    if (outlets.some((one) => one.live[index] === null)) return index + 1;
  return null;
}
