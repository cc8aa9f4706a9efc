import { expect, test } from "vitest";
import type { GuidedStep } from "../../../api/client";
import type { Waiting } from "../../../api/outbox/waiting";
import { answersOf } from "./answers";

const step = {
  step: "round",
  gone_through: [{ name: "box 1", outcome: "live" }],
} as unknown as GuidedStep;
const told = (entry: object) => ({ body: { kind: "seen", entry } }) as unknown as Waiting;

test("what is on its way is an answer as what is there, of this step and of a point alone", () => {
  const answers = answersOf(step, [
    told({ step: "round", name: "box 2", outcome: "dead" }),
    told({ step: "before", name: "box 3", outcome: "dead" }),
    told({ step: "round", outcome: "all" }),
  ]);
  expect([...answers]).toEqual([
    ["box 2", "dead"],
    ["box 1", "live"],
  ]);
});
