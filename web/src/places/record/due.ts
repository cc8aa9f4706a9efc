/** Days as a date field writes them, `2026-11-24`, which sort as they follow. */

/** Of this device's own calendar. */
export function today(now = new Date()): string {
  const two = (part: number) => String(part).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}

/** Nothing was tested on that day or since. */
export const dueSince = (lastTested: string | null, day: string) => lastTested === null || lastTested < day;
