import { describe, expect, it } from "vitest";
import type { RoundBody } from "../../api/outbox/waiting";
import { pressWith } from "./press";

const stops = [{ id: "p3", name: "Outlet 3" }];
const event = (kind: RoundBody["kind"], tripped: boolean | null = null): RoundBody => ({
  point: "p3",
  kind,
  reason: "",
  tripped,
});
const stateOf = (...events: RoundBody[]) => pressWith(null, events, stops)?.state ?? null;

describe("a press of the trip button without a line", () => {
  it("waits for what the device did, is dark while it is tripped, and is over when it is reset", () => {
    expect(stateOf(event("pressed"))).toBe("pressed");
    expect(stateOf(event("pressed"), event("watched", true))).toBe("dark");
    expect(stateOf(event("pressed"), event("watched", true), event("reset"))).toBeNull();
    expect(stateOf(event("pressed"), event("watched", false))).toBeNull();
  });

  it("goes on from what the server knows, and is not changed by a stop that was skipped", () => {
    const dark = { point: "p3", name: "Outlet 3", state: "dark" as const };
    expect(pressWith(dark, [event("skipped")], stops)).toBe(dark);
    expect(pressWith(dark, [event("reset")], stops)).toBeNull();
    expect(pressWith(null, [event("pressed")], stops)?.name).toBe("Outlet 3");
  });
});
