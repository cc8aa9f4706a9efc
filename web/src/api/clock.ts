/**
 * The server's clock on this device: what it said, and how long ago that was asked.
 *
 * Counted from when it was asked, not from when the answer came, so that a slow line makes what is left less and never
 * more. Of two ways to count the one that is further on is believed: a clock that is set back changes the one, a device
 * that slept the other.
 */

export type Moment = { at: number; tick: number };

export const present = (): Moment => ({ at: Date.now(), tick: performance.now() });

/** Milliseconds from one moment to another of this device. */
export const since = (then: Moment, now: Moment = present()) =>
  Math.max(0, now.at - then.at, now.tick - then.tick);

/** `now`: by the server, in the answer to what was `asked` then. */
export type Clocked = { now: string; asked: Moment };

/** Milliseconds until a moment of the server's clock, negative when it is past. */
export const msUntil = (moment: string, heard: Clocked, now: Moment = present()) =>
  Date.parse(moment) - Date.parse(heard.now) - since(heard.asked, now);

/** An answer with when it was asked for. */
export async function clocked<T extends object>(ask: () => Promise<T>): Promise<T & { asked: Moment }> {
  const asked = present();
  return { ...(await ask()), asked };
}

/** Smaller differences the server allows for; correcting them by an answer's whole seconds would only shake the order. */
const OFF_MS = 30_000;
const HALF_A_SECOND_MS = 500;
let ahead = 0;

/** What the server's clock said in the head of an answer. */
export function heardDate(date: string | null, now = Date.now()) {
  const said = Date.parse(date ?? "");
  if (Number.isNaN(said)) return;
  const off = said + HALF_A_SECOND_MS - now;
  if (Math.abs(off - ahead) > OFF_MS) ahead = Math.abs(off) > OFF_MS ? off : 0;
}

/** A time of this device by the server's clock, as far as this page has heard it. */
export const byServerClock = (at: string) => new Date(Date.parse(at) + ahead).toISOString();
