/** What the tests of the outbox have in common: a browser, a page and a server that answer as they are told. */

import "fake-indexeddb/auto";
import { afterEach, beforeEach, vi } from "vitest";

vi.stubGlobal("window", { addEventListener: () => {} });
vi.stubGlobal("navigator", { onLine: true });
const { Refusal } = await import("../client");
const { Outbox } = await import("./outbox");
const { BrowserStore } = await import("./store");

import type { Bench } from "../client";
import type { InTurn } from "./outbox";
import type { Store } from "./store";
import type { Waiting } from "./waiting";

export const one = (id: string, value = 119.8): Omit<Waiting, "problem" | "at"> => ({
  id,
  kind: "reading",
  of: "p",
  where: "Outlet 3",
  body: { entry: { quantity: "voltage", value }, tester: null, supersedes: null },
  said: `L to N, ${value} V`,
});
export const refusal = (status: number, text = "more than this tester shows") =>
  new Refusal(status, [{ path: "value", text }]);
export const bench = {} as Bench;

/** A server that answers each call as it is told to. */
export function server() {
  const calls: { id: string; answer: (bench: Bench) => void; refuse: (error: unknown) => void }[] = [];
  const send = (waiting: Waiting) =>
    new Promise<Bench>((answer, refuse) => calls.push({ id: waiting.id, answer, refuse }));
  return { calls, send };
}

let browsers = 0;
/** A browser's own database, with nothing in it. */
export const browser = () => new BrowserStore(`browser ${browsers++}`);

/** Until the database has done what was asked of it. */
export const settled = async () => {
  for (let i = 0; i < 40; i++) await new Promise((done) => setImmediate(done));
};
/** The storage of a page, which is written at once. */
export function aPage() {
  const noted = new Map<string, string>();
  const page = {
    getItem: (key: string) => noted.get(key) ?? null,
    setItem: (key: string, value: string) => void noted.set(key, value),
    removeItem: (key: string) => void noted.delete(key),
    key: (i: number) => [...noted.keys()][i] ?? null,
    get length() {
      return noted.size;
    },
  };
  return { noted, page };
}

export const sent: string[] = [];
export const atOnce = async () => {};
export const ids = (list: Waiting[]) => list.map((w) => w.id);

export async function begin(
  send: ReturnType<typeof server>["send"],
  store: Store = browser(),
  shown: () => Promise<void> = atOnce,
  inTurn?: InTurn,
) {
  const outbox = new Outbox(
    send,
    (waiting) => {
      sent.push(waiting.id);
      return shown();
    },
    store,
    inTurn,
  );
  await outbox.of("crew anna");
  return outbox;
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
  sent.length = 0;
});
afterEach(() => void vi.useRealTimers());
