import { expect, test, vi } from "vitest";
import reference from "../api/reference.json";

vi.stubGlobal("window", { addEventListener: () => {} });
vi.stubGlobal("navigator", { onLine: true });

test("a verdict has the same word on the screen and on paper", async () => {
  const { WORDS } = await import("./VerdictShape");
  expect(WORDS).toEqual(reference.report.verdicts);
});
