import { useState } from "react";
import type { Refusal } from "../api/client";

/** What is typed in a form's fields, each as an input takes it, with what the server said is wrong with it. */
export function useTyped<Name extends string>(empty: Record<Name, string>) {
  const [typed, setTyped] = useState(empty);
  const field = (name: Name, refused: Refusal | null, path: string = name) => ({
    value: typed[name],
    onChange: (event: { currentTarget: { value: string } }) =>
      setTyped({ ...typed, [name]: event.currentTarget.value }),
    error: refused?.problems.find((p) => p.path === path)?.text,
  });
  return { typed, field };
}
