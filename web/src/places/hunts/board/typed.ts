/** What of a board is not on record, as it is typed and as the server takes it. */

export type TypedBoard = { more: string; outlets: string; fixed: Record<string, "" | "on" | "off"> };
export const NOTHING_TYPED: TypedBoard = { more: "", outlets: "", fixed: {} };
type Way = { id: string; name: string };

/** Ways on record, and those counted on from them: of those the name is the id. */
export const waysOf = (onRecord: Way[], { more }: TypedBoard): Way[] => [
  ...onRecord.map(({ id, name }) => ({ id, name })),
  ...Array.from({ length: Math.max(0, Number.parseInt(more, 10) || 0) }, (_, n) => {
    const name = `Way ${onRecord.length + n + 1}`;
    return { id: name, name };
  }),
];

export function boardOf(onRecord: Way[], typed: TypedBoard) {
  const ways = waysOf(onRecord, typed).map((way) => way.id);
  const fixed = (as: "on" | "off") => ways.filter((way) => typed.fixed[way] === as);
  return {
    ways: ways.slice(onRecord.length),
    outlets: typed.outlets
      .split("\n")
      .map((line) => line.trim())
      .filter((line) => line !== ""),
    fixed_on: fixed("on"),
    fixed_off: fixed("off"),
  };
}
