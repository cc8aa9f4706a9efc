import { Button } from "@mantine/core";
import type { Refusal } from "../api/client";
import { useMay } from "../api/session";
import folds from "./Fold.module.css";
import { Unplaced } from "./Unplaced";

export type Gone = { id: string; name: string; under?: string };

/** What is out of use, each to be brought back. */
export function OutOfUse<G extends Gone>(props: {
  list: G[];
  error: Refusal | null;
  onBringBack: (one: G) => void;
}) {
  const may = useMay("retire");
  if (props.list.length === 0 || !may) return null;
  return (
    <details className={folds.fold}>
      <summary>Out of use: {props.list.length}</summary>
      {props.list.map((one) => (
        <Button
          key={one.id}
          fullWidth
          mt="xs"
          variant="default"
          justify="flex-start"
          onClick={() => props.onBringBack(one)}
        >
          Bring back {one.name}
          {one.under && `, ${one.under}`}
        </Button>
      ))}
      <Unplaced error={props.error} />
    </details>
  );
}
