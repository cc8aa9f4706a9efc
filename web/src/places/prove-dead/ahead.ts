/** What is left to do of a proof, what waits to be sent being done: the server says what is ahead, all going well. */

import type { EventEntry, Proof } from "../../api/client";
import type { EventBody, Waiting } from "../../api/outbox/waiting";
import { samePair } from "../../geometry/pairs";

type Step = Proof["state"]["next"];

/** The steps an event does. What is not here changes more than the order of the work, and only the server knows how. */
const DOES: Partial<Record<EventEntry["type"], Step["step"][]>> = {
  off: ["switch-off"],
  locked: ["lock"],
  proved: ["prove", "prove-again"],
  tested: ["test", "low-impedance"],
  left: [],
  returned: [],
};

const does = (entry: EventEntry): Step["step"][] | undefined =>
  entry.type === "screened" && !entry.alarm ? [] : DOES[entry.type];

/** What of it waits, and is not among the proof's events. */
export const unsentOf = (proof: Proof, waiting: Waiting[]): EventEntry[] =>
  waiting
    .filter(({ id }) => !proof.events.some((event) => event.id === id))
    .map((one) => (one.body as EventBody).entry);

/** Whether one of them may have ended the proof: how it stands is not known until the server says. */
export const mayEnd = (unsent: EventEntry[]) => unsent.some((entry) => does(entry) === undefined);

/** In order; empty where only the server knows what comes next. */
export function stepsLeft(state: Proof["state"], unsent: EventEntry[]): Step[] {
  if (mayEnd(unsent)) return [];
  const left = [state.next, ...state.ahead];
  for (const entry of unsent) {
    const done = left.findIndex(
      (step) =>
        does(entry)?.includes(step.step) &&
        (step.source === null || step.source === entry.source) &&
        (!step.from || !step.to || isOf(entry, { from: step.from, to: step.to })),
    );
    if (done >= 0) left.splice(done, 1);
  }
  return left;
}

const isOf = (entry: EventEntry, pair: { from: string; to: string }) =>
  !!entry.from && !!entry.to && samePair({ from: entry.from, to: entry.to }, pair);
