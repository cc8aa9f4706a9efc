import { expect, it } from "vitest";
import { newId } from "./ids";

it("makes ids of version 4, each another, with nothing that only secure pages have", () => {
  const bare = globalThis.crypto;
  Object.defineProperty(globalThis, "crypto", {
    value: { getRandomValues: bare.getRandomValues.bind(bare) },
    configurable: true,
  });
  try {
    const ids = Array.from({ length: 500 }, newId);
    expect(new Set(ids).size).toBe(500);
    for (const id of ids)
      expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
  } finally {
    Object.defineProperty(globalThis, "crypto", { value: bare, configurable: true });
  }
});
