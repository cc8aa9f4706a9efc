/** A number as a display has it. */
export const figure = (value: number | null): string =>
  value === null ? "–" : `${Number(value.toPrecision(5))}`;
