/** A number as a display has it: two figures under one, four above. */
export const figure = (value: number): string => `${Number(value.toPrecision(Math.abs(value) < 1 ? 2 : 4))}`;
