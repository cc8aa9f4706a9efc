/**
 * Readings on their way to the server: in order, one at a time, each until it is there or a person drops it.
 *
 * Whatever was recorded is in here first, so a second reading never waits for the first, and one the server cannot be
 * told of or refuses is kept with what is wrong. Kept in the browser's storage for the person it is of, and tried
 * again; its own id makes it the same reading however often it is sent.
 */

import type { Bench, Entry, Reading } from "./client";
import { Refusal } from "./client";

export type Body = {
  entry: Entry;
  tester: string | null;
  supersedes: string | null;
  taken_at: string;
};

/**
 * `problem`: why the server refused it; empty while it waits. `said`: in words, for the list. `typed`: to put back.
 * `arrived`: it is at the server, and not yet everywhere it is shown: until then it still counts as taken.
 */
export type Waiting = {
  id: string;
  point: string;
  body: Body;
  said: string;
  problem: string;
  typed?: unknown;
  arrived?: true;
};

/** Tells the server of one, and answers with the Bench as it then is. */
export type Send = (one: Waiting) => Promise<Bench>;
/** Told of one that is there; done when all that shows it does. */
export type Sent = (one: Waiting, bench: Bench) => Promise<void>;
export type Storage = Pick<globalThis.Storage, "getItem" | "setItem" | "removeItem">;

const TRY_AGAIN_MS = 3_000;
/** No answer, signed out, slow, busy, or nothing behind the front. */
const PASSING = [0, 401, 408, 429, 502, 503, 504];

/** Whether it is only to be sent again, nothing being wrong with the reading itself. */
const passes = (error: unknown) => error instanceof Refusal && PASSING.includes(error.status);

export class WaitingReadings {
  private list: Waiting[] = [];
  private sending: string | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly listeners = new Set<() => void>();
  private key: string | null = null;

  constructor(
    private readonly send: Send,
    private readonly sent: Sent,
    private readonly storage: Storage | null,
  ) {}

  /** Whose readings they are: what this person left waiting comes back, and nobody else's is sent for them. */
  of(person: string | null) {
    const key = person === null ? null : `waiting-readings ${person}`;
    if (key === this.key) return;
    this.key = key;
    this.list = key === null ? [] : this.kept(key);
    this.changed(false);
    this.next();
  }

  add(one: Omit<Waiting, "problem">) {
    this.list = [...this.list, { ...one, problem: "" }];
    this.changed();
    this.next();
  }

  /** Once more, though the server would not have it. */
  again(id: string) {
    this.list = this.list.map((one) => (one.id === id ? { ...one, problem: "" } : one));
    this.changed();
    this.next();
  }

  drop(id: string) {
    this.list = this.list.filter((one) => one.id !== id);
    this.changed();
  }

  /** Now, not at the next try: the line is back. */
  next = () => {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    const one = this.list.find((waiting) => waiting.problem === "" && !waiting.arrived);
    if (one === undefined || this.sending !== null) return;
    void this.tell(one);
  };

  watch = (told: () => void) => {
    this.listeners.add(told);
    return () => {
      this.listeners.delete(told);
    };
  };

  all = () => this.list;

  private async tell(one: Waiting) {
    const key = this.key;
    this.sending = one.id;
    this.changed(false);
    let again = false;
    try {
      const bench = await this.send(one);
      this.list = this.list.map((waiting) =>
        waiting.id === one.id ? { ...waiting, arrived: true } : waiting,
      );
      const shown = () => this.drop(one.id);
      this.sent(one, bench).then(shown, shown);
    } catch (error) {
      again = passes(error);
      const problem = error instanceof Refusal ? error.problems.map((p) => p.text).join(" ") : String(error);
      if (!again && key === this.key)
        this.list = this.list.map((waiting) => (waiting.id === one.id ? { ...waiting, problem } : waiting));
    }
    this.sending = null;
    this.changed();
    if (again) this.timer = setTimeout(this.next, TRY_AGAIN_MS);
    else this.next();
  }

  isSending = () => this.sending;

  private kept(key: string): Waiting[] {
    try {
      return JSON.parse(this.storage?.getItem(key) ?? "[]") as Waiting[];
    } catch {
      return [];
    }
  }

  private changed(keep = true) {
    this.list = [...this.list];
    if (keep && this.key !== null)
      try {
        const left = this.list.filter((one) => !one.arrived);
        if (left.length > 0) this.storage?.setItem(this.key, JSON.stringify(left));
        else this.storage?.removeItem(this.key);
      } catch {
        // A full or forbidden storage keeps nothing over a reload; it is still sent from here.
      }
    for (const told of this.listeners) told();
  }
}

/** What of a point's record is not there yet counts as taken, so that the next pair is the next one. */
export const withWaiting = (readings: Reading[], waiting: Waiting[]) => [
  ...readings,
  ...waiting
    .filter((one) => one.problem === "" && !readings.some((r) => r.id === one.id))
    .map((one) => ({ id: one.id, entry: one.body.entry, status: "counts" }) as Reading),
];
