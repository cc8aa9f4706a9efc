/** What waits to be sent, as this browser keeps it: in IndexedDB, in the order it was recorded in. */

import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { keptAs } from "../sandbox";
import type { Waiting } from "./waiting";

/** `number`: the order, which the database gives; `person`: whose it is. */
type Kept = Waiting & { number?: number; person: string };

interface Schema extends DBSchema {
  waiting: { key: number; value: Kept; indexes: { id: string; person: string } };
}

/** Every call may fail: a private window has no room, a full device no more. */
export interface Store {
  all(person: string): Promise<Waiting[]>;
  /** Again with the same id in its old place. */
  put(person: string, one: Waiting): Promise<void>;
  has(id: string): Promise<boolean>;
  drop(id: string): Promise<void>;
}

export class BrowserStore implements Store {
  private opened: Promise<IDBPDatabase<Schema>> | null = null;

  constructor(private readonly name = keptAs("")) {}

  private database() {
    this.opened ??= openDB<Schema>(this.name, 1, {
      upgrade(database) {
        const waiting = database.createObjectStore("waiting", { keyPath: "number", autoIncrement: true });
        waiting.createIndex("id", "id", { unique: true });
        waiting.createIndex("person", "person");
      },
    });
    this.opened.catch(() => {
      this.opened = null;
    });
    return this.opened;
  }

  async all(person: string): Promise<Waiting[]> {
    const kept = await (await this.database()).getAllFromIndex("waiting", "person", person);
    return kept
      .sort((a, b) => (a.number ?? 0) - (b.number ?? 0))
      .map(({ number: _, person: __, ...one }) => one);
  }

  async put(person: string, one: Waiting): Promise<void> {
    const writing = (await this.database()).transaction("waiting", "readwrite");
    const number = await writing.store.index("id").getKey(one.id);
    await writing.store.put({ ...one, person, ...(number === undefined ? {} : { number }) });
    await writing.done;
  }

  async has(id: string): Promise<boolean> {
    return (await (await this.database()).getKeyFromIndex("waiting", "id", id)) !== undefined;
  }

  async drop(id: string): Promise<void> {
    const writing = (await this.database()).transaction("waiting", "readwrite");
    const number = await writing.store.index("id").getKey(id);
    if (number !== undefined) await writing.store.delete(number);
    await writing.done;
  }
}
