/**
 * What was recorded, on its way to the server: in order, one at a time, each until it is there or a person drops it.
 *
 * Whatever is recorded is in here first and kept by the browser, so that nothing waits for what was recorded before it,
 * and what the server cannot be told of or refuses is there with what is wrong, over a reload, a closed tab and another
 * day. It is kept for the person it is of, and tried again; its own id makes it the same record however often it is sent.
 */

import { Refusal } from "../client";
import { Journal } from "./journal";
import type { Store } from "./store";
import type { Waiting } from "./waiting";

/** Tells the server of one, and answers with what is then shown. */
export type Send = (one: Waiting) => Promise<object>;
/** Told of one that is there; done when all that shows it does. */
export type Sent = (one: Waiting, answer: object) => Promise<void>;
/** Only one tab at a time sends what they all have. */
export type InTurn = (send: () => Promise<void>) => Promise<void>;
/** Tells the other tabs that what is kept has changed. */
export type Tell = () => void;

const TRY_AGAIN_MS = 3_000;
/** No answer, signed out, slow, busy, or nothing behind the front. */
const PASSING = [0, 401, 408, 429, 502, 503, 504, 507];

/** Whether it is only to be sent again, nothing being wrong with what was recorded. */
const passes = (error: unknown) => error instanceof Refusal && PASSING.includes(error.status);

/** Whether the server itself says why it takes nothing just now: its disk is full, or others write. */
const isSaidOfItself = (error: unknown) => error instanceof Refusal && error.status > FAILED;
const FAILED = 500;

export class Outbox {
  private list: Waiting[] = [];
  private sending: string | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly listeners = new Set<() => void>();
  private person: string | null = null;
  /** Writes to the store, one after the other; what is not kept yet is in `unsaved`, with whose it is. */
  private writes: Promise<void> = Promise.resolve();
  private readonly unsaved = new Map<string, { person: string; one: Waiting }>();
  private keepsNothing = false;
  private telling = false;
  private read = false;

  constructor(
    private readonly send: Send,
    private readonly sent: Sent,
    private readonly store: Store,
    private readonly inTurn: InTurn = (send) => send(),
    private readonly tell: Tell = () => {},
    private readonly journal = new Journal(null),
  ) {}

  /** Whose it is: what this person left waiting comes back, and nobody else's is sent for them. */
  async of(person: string | null) {
    if (person === this.person) return;
    this.person = person;
    this.list = [];
    this.read = false;
    this.changed();
    if (person === null) return;
    for (const one of this.journal.takeOver(person)) this.keep(one);
    await this.refresh();
  }

  /** As the browser keeps it: another tab may have recorded more, or sent what is here. */
  refresh = async () => {
    const { person } = this;
    if (person === null) return;
    await this.writes;
    const before = new Set(this.list.map((one) => one.id));
    const kept = await this.store.all(person).catch(() => null);
    if (person !== this.person) return;
    this.read = true;
    if (kept === null) this.setForgetful(true);
    if (kept === null) return;
    const here = new Map(this.list.map((one) => [one.id, one]));
    const keptIds = new Set(kept.map((one) => one.id));
    const addedMeanwhile = (id: string) => !before.has(id);
    const onlyHere = this.list.filter(
      (one) => !keptIds.has(one.id) && (one.arrived || this.unsaved.has(one.id) || addedMeanwhile(one.id)),
    );
    this.list = [
      ...kept.map((one) => (here.get(one.id)?.arrived ? { ...one, arrived: true as const } : one)),
      ...onlyHere,
    ];
    this.changed();
    this.next();
  };

  add(one: Omit<Waiting, "problem" | "at">) {
    const recorded = { ...one, at: new Date().toISOString(), problem: "" };
    this.list = [...this.list, recorded];
    this.changed();
    this.keep(recorded);
    this.next();
  }

  /** Once more, though the server would not have it. */
  again = (id: string) => {
    this.amend(id, { problem: "" });
    this.next();
  };

  drop = (id: string) => {
    this.list = this.list.filter((one) => one.id !== id);
    this.changed();
    this.forget(id);
  };

  /** Now, not at the next try: the line is back. */
  next = () => {
    if (this.timer !== null) clearTimeout(this.timer);
    this.timer = null;
    const one = this.list.find((waiting) => waiting.problem === "" && !waiting.arrived);
    if (one === undefined || this.sending !== null) return;
    void this.tellServer(one);
  };

  watch = (told: () => void) => {
    this.listeners.add(told);
    return () => {
      this.listeners.delete(told);
    };
  };

  all = () => this.list;
  /** How much is not at the server. */
  waits = () => this.list.filter((one) => !one.arrived).length;
  /** Whether something of this place is on its way just now. */
  isSending = (of: string) => this.list.some((one) => one.id === this.sending && one.of === of);
  /** Whether it is known by now what was left waiting. */
  isRead = () => this.read;
  /** Whether this browser refuses to keep what waits: it is sent from here all the same, while the page is open. */
  isForgetful = () => this.keepsNothing;

  private async tellServer(one: Waiting) {
    const { person } = this;
    this.sending = one.id;
    this.changed();
    let again = false;
    const begun = this.unsaved.has(one.id) ? this.sendAtOnce(one) : null;
    const deliver = async () => {
      if (!begun && (await this.wasSentElsewhere(one))) {
        if (person === this.person) this.drop(one.id);
        return;
      }
      try {
        const answer = await (begun ?? this.send(one));
        this.forget(one.id);
        const drop = () => this.drop(one.id);
        const shown = this.sent(one, answer);
        this.amend(one.id, { arrived: true }, false);
        shown.then(drop, drop);
        await this.writes;
      } catch (error) {
        again = passes(error);
        const problem =
          error instanceof Refusal ? error.problems.map((p) => p.text).join(" ") : String(error);
        if (person !== this.person) return;
        if (!again) this.amend(one.id, { problem });
        else if (isSaidOfItself(error)) this.amend(one.id, { held: problem }, false);
      }
    };
    await this.inTurn(deliver).catch(async () => {
      if (begun) await deliver();
      else again = true;
    });
    this.sending = null;
    this.changed();
    if (again) this.timer = setTimeout(this.next, TRY_AGAIN_MS);
    else this.next();
  }

  /** What is not kept yet no other tab knows of: on its way before it is this tab's turn, and after the tap is drawn. */
  private sendAtOnce(one: Waiting): Promise<object> {
    const begun = Promise.resolve().then(() => this.send(one));
    begun.catch(() => "said where it is waited for");
    return begun;
  }

  private async wasSentElsewhere(one: Waiting): Promise<boolean> {
    if (this.keepsNothing || this.unsaved.has(one.id)) return false;
    return !(await this.store.has(one.id).catch(() => true));
  }

  private amend(id: string, change: Partial<Waiting>, keep = true) {
    this.list = this.list.map((one) => (one.id === id ? { ...one, ...change } : one));
    this.changed();
    const amended = this.list.find((one) => one.id === id);
    if (keep && amended) this.keep(amended);
  }

  private keep(one: Waiting) {
    const { person } = this;
    if (person === null) return;
    this.unsaved.set(one.id, { person, one });
    this.note(person);
    this.write(async () => {
      if (this.unsaved.get(one.id)?.one !== one) return;
      await this.store.put(person, one);
      if (this.unsaved.get(one.id)?.one === one) this.saved(one.id);
    });
  }

  private forget(id: string) {
    this.saved(id);
    this.write(() => this.store.drop(id));
  }

  private saved(id: string) {
    const person = this.unsaved.get(id)?.person;
    this.unsaved.delete(id);
    if (person !== undefined) this.note(person);
  }

  private note(person: string) {
    const own = [...this.unsaved.values()].filter((unsaved) => unsaved.person === person);
    this.journal.note(
      person,
      own.map(({ one }) => one),
    );
  }

  private write(change: () => Promise<void>) {
    this.writes = this.writes.then(change).then(
      () => {
        if (this.keepsNothing) this.setForgetful(false);
        this.tell();
      },
      () => this.setForgetful(true),
    );
  }

  private setForgetful(forgetful: boolean) {
    this.keepsNothing = forgetful;
    this.changed();
  }

  /** Told once of all that changes together, with what else a tap or an answer changes. */
  private changed() {
    if (this.telling) return;
    this.telling = true;
    queueMicrotask(() => {
      this.telling = false;
      for (const told of this.listeners) told();
    });
  }
}
