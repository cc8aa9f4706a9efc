import { describe, expect, it } from "vitest";
import { minutesAndSeconds, standingNow } from "./proofStanding";

const asked = { at: 0, tick: 0 };
const at = (seconds: number) => ({ at: seconds * 1000, tick: seconds * 1000 });
const dead = {
  state: "proved-dead",
  stated: true,
  now: "2026-11-24T10:00:00Z",
  expires_at: "2026-11-24T10:10:00Z",
  asked,
};

describe("how a proof stands on this device", () => {
  it("is proved dead while it runs and is as good as new", () => {
    expect(standingNow(dead, false, at(60))).toEqual({
      state: "proved-dead",
      word: "Proved dead",
      ms: 540_000,
    });
  });

  it("is void at zero, at once, whatever the line does", () => {
    for (const cutOff of [false, true])
      for (const seconds of [600, 601, 18 * 60])
        expect(standingNow(dead, cutOff, at(seconds))).toEqual({
          state: "void",
          word: "No longer valid",
          ms: null,
        });
  });

  it("is last known when it is cut off, and never proved dead", () => {
    const found = standingNow(dead, true, at(60));
    expect(found.state).toBe("last-known");
    expect(found.word).toBe("Last known: proved dead");
    expect(standingNow({ ...dead, stated: false }, true, at(60)).word).toContain("not confirmed");
  });

  it("is void where no time is given, for nothing says that it runs", () => {
    expect(standingNow({ ...dead, expires_at: null }, false, at(0)).state).toBe("void");
  });

  it.each(["energised", "void", "proving", "isolated", "closed", "history", "unshown"])(
    "leaves %s as it is",
    (state) => {
      expect(standingNow({ ...dead, state }, false, at(0)).state).toBe(state);
      expect(standingNow({ ...dead, state }, true, at(0)).word).toMatch(/^Last known: /);
    },
  );

  it("says minutes and seconds", () => {
    expect([725_000, 59_001, 400, -1].map(minutesAndSeconds)).toEqual(["12:05", "1:00", "0:01", "0:00"]);
  });
});
