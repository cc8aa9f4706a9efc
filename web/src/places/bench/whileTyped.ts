/** What the server says a reading would make of the verdict, asked while it is typed: known by the time it is recorded. */

import type { JudgedReading } from "../../api/client";
import type { ReadingBody } from "../../api/outbox/waiting";

/** `on`: the point as it was when it was asked; of a point that is another by now it says nothing. */
type Question = { of: string; on: object; body: ReadingBody };

export class WhileTyped {
  private asked: Question | null = null;
  private answer: JudgedReading | null = null;
  private next: Question | null = null;
  private busy = false;
  private waiting: ((found: JudgedReading) => void) | null = null;

  constructor(private readonly ask: (body: ReadingBody) => Promise<JudgedReading>) {}

  /** Asked at once, or when the answer to what was typed before is there: never two at a time. */
  typed(body: ReadingBody, on: object) {
    const question = { of: JSON.stringify(body), on, body };
    if (this.isAsked(question)) return;
    this.next = question;
    void this.go();
  }

  /** What is known of a reading that is recorded now: told at once, or as soon as it comes; never where not asked. */
  recorded(body: ReadingBody, on: object, told: (found: JudgedReading) => void) {
    this.next = null;
    this.waiting = null;
    if (!this.isAsked({ of: JSON.stringify(body), on, body })) return;
    if (this.answer) told(this.answer);
    else this.waiting = told;
  }

  private isAsked = (one: Question) => this.asked?.of === one.of && this.asked.on === one.on;

  private async go() {
    if (this.busy || !this.next) return;
    this.busy = true;
    this.asked = this.next;
    this.next = null;
    this.answer = null;
    try {
      this.answer = await this.ask(this.asked.body);
      this.waiting?.(this.answer);
    } catch {
      this.asked = null;
    }
    this.waiting = null;
    this.busy = false;
    void this.go();
  }
}
