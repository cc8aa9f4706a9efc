import { useCase, useDo } from "../../api/practice";

/** What one takes to be ruled out in a case, by id, and marking one the other way; nothing outside one, or once it is over. */
export function useMarks() {
  const here = useCase().data;
  const act = useDo();
  if (!here || here.over) return null;
  const out = new Set(here.ruled_out);
  const toggle = (id: string) => {
    const conditions = out.has(id) ? here.ruled_out.filter((one) => one !== id) : [...here.ruled_out, id];
    act.mutate({ doing: "ruled-out", conditions });
  };
  return { out, toggle };
}
