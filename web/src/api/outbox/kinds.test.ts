import { beforeEach, expect, test, vi } from "vitest";

vi.stubGlobal("window", { addEventListener: () => {} });
vi.stubGlobal("navigator", { onLine: true });
vi.stubGlobal("document", { cookie: "csrftoken=own-page" });

/** A page's requests are of its own address, which nothing here has. */
class PageRequest extends Request {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(typeof input === "string" ? new URL(input, "http://probe/") : input, init);
  }
}
vi.stubGlobal("Request", PageRequest);

import type {
  EventBody,
  HuntBody,
  Kind,
  ReadingBody,
  RoundBody,
  SheetBody,
  VisitBody,
  Waiting,
  WithdrawalBody,
} from "./waiting";

const { Refusal } = await import("../client");
const { lineCutOffSince } = await import("../line");
const { KINDS } = await import("./kinds");

const reading: ReadingBody = {
  entry: { quantity: "voltage", from: "L", to: "N", value: "119.8 V" },
  tester: "m2",
  supersedes: null,
};
const TAKEN = "2026-11-24T10:00:00.000Z";
const PLACES: Record<Kind, string> = {
  reading: "/bench/p1",
  withdrawal: "/bench/p1",
  "proof-event": "/prove-dead/p1",
  "sheet-entry": "/dead-tests/p1",
  "round-event": "/rounds/p1",
  "hunt-event": "/hunts/p1",
  "visit-event": "/record/visits/p1",
  hung: "/record",
  "photo-of-it": "/record",
  photo: "/dead-tests/p1",
  "hunt-photo": "/hunts/p1",
};
const EVENT: EventBody = {
  entry: { type: "proved", shows_v: 239 },
  tester: "m2",
  leads: null,
  adapters: [],
};
const LOOKED: SheetBody = {
  entry: { type: "looked", item: "screws", good: true },
  tester: null,
  supersedes: null,
};
const SKIPPED: RoundBody = { point: "p7", kind: "skipped", reason: "Behind the loom", tripped: null };
const SHOWN: HuntBody = { kind: "seen", entry: { at: "board", onward: true } };
const LEFT: VisitBody = { kind: "left-open", entry: { what: "Cover of the box" } };
const withdrawal: WithdrawalBody = { reading: "r0" };
const waiting = (kind: Kind, body: unknown): Waiting => ({
  id: "r1",
  kind,
  of: "p1",
  where: "Outlet 3",
  body,
  said: "",
  at: TAKEN,
  problem: "",
});
/** Their answer is shown nowhere by itself. */
const NOWHERE: Kind[] = ["photo", "hunt-photo", "photo-of-it", "hung"];
const never = new AbortController().signal;

/** What was asked of the server, which answers as it is told. */
let asked: { method: string; path: string; body: unknown; token: string | null }[] = [];
let answers: (request: Request) => Promise<Response>;

beforeEach(() => {
  asked = [];
  answers = async () => Response.json({ id: "p1" });
  vi.stubGlobal("fetch", async (sent: Request) => {
    asked.push({
      method: sent.method,
      path: new URL(sent.url).pathname,
      body: await sent.clone().json(),
      token: sent.headers.get("X-CSRFToken"),
    });
    return answers(sent);
  });
});

test("a reading is sent under its own id, as it was typed and when it was taken, with the page's own token", async () => {
  expect(await KINDS.reading.send(waiting("reading", reading), never)).toEqual({ id: "p1" });
  const body = {
    ...reading,
    verdict_first: false,
    taken_at: TAKEN,
    sent_at: expect.stringMatching(/^20.*Z$/),
  };
  expect(asked).toEqual([{ method: "PUT", path: "/api/points/p1/readings/r1", body, token: "own-page" }]);
});

test("what is taken back is sent under an id of its own", async () => {
  await KINDS.withdrawal.send(waiting("withdrawal", withdrawal), never);
  expect(asked).toMatchObject([{ method: "PUT", path: "/api/points/p1/withdrawals/r1", body: withdrawal }]);
});

test.each(Object.keys(KINDS) as Kind[])("a %s leads back to where it was recorded", (kind) => {
  const { place, shows } = KINDS[kind];
  expect(place(waiting(kind, {}))).toBe(PLACES[kind]);
  if (!NOWHERE.includes(kind)) expect(shows.shows?.({ id: "p1" })).toContain("p1");
});

test.each<[Kind, unknown, string, object]>([
  ["proof-event", EVENT, "/api/proofs/p1/events/r1", EVENT],
  ["sheet-entry", LOOKED, "/api/sheets/p1/entries/r1", LOOKED],
  ["round-event", SKIPPED, "/api/rounds/p1/events/r1", SKIPPED],
  ["hunt-event", SHOWN, "/api/hunts/p1/events/r1", SHOWN],
  ["visit-event", LEFT, "/api/visits/p1/events/r1", LEFT],
  ["photo", { image: "/9j/" }, "/api/photos/r1", { image: "/9j/" }],
])(
  "a %s is sent under its own id, with when it happened and when it was sent",
  async (kind, body, path, sent) => {
    await KINDS[kind].send(waiting(kind, body), never);
    expect(asked).toMatchObject([{ method: "PUT", path, body: { ...sent, at: TAKEN } }]);
    expect(asked[0]?.body).toHaveProperty("sent_at");
  },
);

test("one that takes too long is given up and says that there is no line", async () => {
  answers = (request) =>
    new Promise((_, refuse) => request.signal.addEventListener("abort", () => refuse(request.signal.reason)));
  const slow = new AbortController();
  const sent = KINDS.reading.send(waiting("reading", reading), slow.signal);
  setTimeout(() => slow.abort(), 5);
  await expect(sent).rejects.toMatchObject({ status: 0 });
  expect(lineCutOffSince()).not.toBeNull();
});

test("a refusal names what is wrong, and a failure without a word says so", async () => {
  answers = async () =>
    Response.json({ problems: [{ path: "value", text: "must be a number" }] }, { status: 422 });
  const refused = await KINDS.reading.send(waiting("reading", reading), never).catch((error) => error);
  expect(refused).toBeInstanceOf(Refusal);
  expect([refused.status, refused.message]).toEqual([422, "value: must be a number"]);
  answers = async () => new Response("<h1>down</h1>", { status: 502 });
  const failed = await KINDS.reading.send(waiting("reading", reading), never).catch((error) => error);
  expect([failed.status, failed.message]).toEqual([502, "The server failed (502). Try again."]);
});
