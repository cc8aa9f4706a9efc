/**
 * What was recorded in the last few milliseconds, and is not in the database yet: kept at once, for a page may be left
 * between a tap and the database's answer. Whoever opens the page next finds it here.
 */

import { keptAs } from "../sandbox";
import type { Waiting } from "./waiting";

const NAME = keptAs(" not kept yet");

export type Page = Pick<Storage, "getItem" | "setItem" | "removeItem" | "key" | "length">;

export class Journal {
  /** One a page, so that two tabs do not write over one another. */
  private readonly own = `${Date.now()}.${Math.random()}`;

  constructor(private readonly page: Page | null) {}

  /** All keys of a person begin so, and of nobody else: a name may be the beginning of another. */
  private of = (person: string) => `${NAME} ${JSON.stringify(person)} `;

  /** All that is not kept yet, in order; nothing where the browser has no room for it. */
  note(person: string, unsaved: Waiting[]) {
    try {
      const key = this.of(person) + this.own;
      if (unsaved.length > 0) this.page?.setItem(key, JSON.stringify(unsaved));
      else this.page?.removeItem(key);
    } catch {
      // The database says the same when it is asked, and then it is told.
    }
  }

  /** What pages that were left did not keep, taken out. */
  takeOver(person: string): Waiting[] {
    try {
      const page = this.page;
      if (!page) return [];
      const keys = Array.from({ length: page.length }, (_, i) => page.key(i) ?? "")
        .filter((key) => key.startsWith(this.of(person)) && !key.endsWith(this.own))
        .sort();
      const found = keys.flatMap((key) => JSON.parse(page.getItem(key) ?? "[]") as Waiting[]);
      for (const key of keys) page.removeItem(key);
      return found;
    } catch {
      return [];
    }
  }
}
