/** A number as typed, with a comma or a point. What is no number goes to the server as it is, which names it. */
export function typedNumber(typed: string): number | string {
  const plain = typed.trim().replace(",", ".");
  return plain === "" || Number.isNaN(Number(plain)) ? typed : Number(plain);
}

/** The same where nothing typed means not recorded; the routes take a number or nothing. */
export const typedOrNone = (typed: string): number | null =>
  typed.trim() === "" ? null : (typedNumber(typed) as number);
