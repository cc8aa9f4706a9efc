/** What is ruled out, by id, with one marked the other way. */
export const marked = (out: readonly string[], id: string) =>
  out.includes(id) ? out.filter((one) => one !== id) : [...out, id];
