import { Button, Text } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { RecordLookedAt } from "../../api/client";
import classes from "./Files.module.css";
import { Problems } from "./Problems";
import { bringRecordIn, lookAtRecord } from "./send";

/** A whole record: what of it is new here, is here already, or is here otherwise. */
export function RecordFile({ file }: { file: File }) {
  const queries = useQueryClient();
  const looked = useQuery({
    queryKey: ["looked", "record", file.name, file.size, file.lastModified],
    queryFn: () => lookAtRecord(file),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const bring = useMutation({
    mutationFn: () => bringRecordIn(file),
    onSuccess: () => {
      void queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "looked" });
    },
  });
  if (looked.isPending) return <p role="status">Looking at {file.name}…</p>;
  if (looked.isError)
    return <Problems of={file.name} error={looked.error} again={() => void looked.refetch()} />;
  const fresh = looked.data.counts.reduce((sum, one) => sum + one.new, 0);
  if (bring.isSuccess) return <Done fresh={fresh} strange={bring.data.strange} />;
  return (
    <>
      <h3>{looked.data.of}</h3>
      <Counts looked={looked.data} />
      <Differing looked={looked.data} />
      {bring.isError && <Problems of={file.name} error={bring.error} written />}
      <p className={classes.pick}>
        <Button onClick={() => bring.mutate()} loading={bring.isPending} disabled={fresh === 0}>
          {fresh === 0 ? "All of it is here" : `Bring in what is new: ${fresh}`}
        </Button>
      </p>
      <p className="quiet">
        What comes in is marked with you and the file. Its testers confirm nothing until somebody says in Kit
        that they are yours, and its proofs of isolation are history: prove dead yourself.
      </p>
    </>
  );
}

function Counts({ looked }: { looked: RecordLookedAt }) {
  return (
    <div className={classes.scroll}>
      <table className={classes.table}>
        <thead>
          <tr>
            <th scope="col">In the file</th>
            <th scope="col">New</th>
            <th scope="col">Here already</th>
            <th scope="col">Here otherwise</th>
          </tr>
        </thead>
        <tbody>
          {looked.counts.map((one) => (
            <tr key={one.table}>
              <th scope="row">{one.title}</th>
              <td>{one.new || ""}</td>
              <td>{one.here || ""}</td>
              <td>{one.differs || ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What the file has otherwise stays as it is here. */
function Differing({ looked }: { looked: RecordLookedAt }) {
  if (looked.differing.length === 0) return null;
  return (
    <>
      <Text mt="sm">These are here otherwise, and stay as they are:</Text>
      <ul className={classes.lines}>
        {looked.differing.map((one) => (
          <li key={`${one.title} ${one.name}`}>
            <strong>{one.name}</strong>
            <span>
              {one.title}: {one.keys.join(", ")}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

function Done({ fresh, strange }: { fresh: number; strange: number }) {
  return (
    <p role="status" className={classes.done}>
      {fresh} rows are on record now, marked with where they came from.
      {strange > 0 && " Say in Kit which of its testers are yours: until then nothing they showed confirms."}
    </p>
  );
}
