/** What was tapped at each point of a step that goes round, at the server or on its way there: outcomes by point. */

import type { GuidedStep } from "../../../api/client";
import type { HuntBody, Waiting } from "../../../api/outbox/waiting";

type Tap = { step?: string; name?: string; outcome?: string };

export function answersOf(step: GuidedStep, told: Waiting[]): Map<string, string> {
  const taps = told.map((one) => (one.body as HuntBody).entry as Tap).filter((tap) => tap.step === step.step);
  return new Map(
    [...taps, ...step.gone_through].flatMap(({ name, outcome }) =>
      name && outcome ? [[name, outcome]] : [],
    ),
  );
}
