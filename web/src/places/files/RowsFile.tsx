import { Button } from "@mantine/core";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { RowsHow, RowsLookedAt } from "../../api/client";
import { Fates } from "./Fates";
import classes from "./Files.module.css";
import { FirstRows } from "./FirstRows";
import { MatchColumns } from "./MatchColumns";
import { Problems } from "./Problems";
import { bringRowsIn, lookAtRows, type TableName } from "./send";

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Rows of a spreadsheet: which column is which, what would come of each row, and bringing them in. */
export function RowsFile(props: { table: TableName; file: File; site: string | null }) {
  const { table, file, site } = props;
  const queries = useQueryClient();
  const [how, setHow] = useState<RowsHow>({ site, zone: "" });
  const asked = { ...how, zone: how.zone || HERE };
  const looked = useQuery({
    queryKey: ["looked", table, file.name, file.size, file.lastModified, asked],
    queryFn: () => lookAtRows(table, file, asked),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: keepPreviousData,
  });
  const bring = useMutation({
    mutationFn: () => bringRowsIn(table, file, asked, looked.data?.sha256 ?? ""),
    onSuccess: () => {
      void queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "looked" });
    },
  });
  if (looked.isPending) return <p role="status">Looking at {file.name}…</p>;
  const lookAgain = () => void looked.refetch();
  if (looked.isError && !looked.data)
    return <Problems of={file.name} error={looked.error} again={lookAgain} />;
  const found = bring.data ?? looked.data;
  if (!found) return null;
  const fresh = found.counts.new ?? 0;
  return (
    <div aria-busy={looked.isFetching}>
      {bring.isSuccess ? (
        <p role="status" className={classes.done}>
          {fresh === 1 ? "1 row is" : `${fresh} rows are`} on record now, marked with you and the file.
        </p>
      ) : (
        <MatchColumns looked={found} change={(next) => setHow({ ...how, ...next })} />
      )}
      {looked.isError && <Problems of={file.name} error={looked.error} again={lookAgain} />}
      <Rows found={found} after={bring.isSuccess} />
      {bring.isError && <Problems of={file.name} error={bring.error} written />}
      {!bring.isSuccess && found.missing.length === 0 && (
        <p className={classes.pick}>
          <Button
            onClick={() => bring.mutate()}
            loading={bring.isPending}
            disabled={fresh === 0 || looked.isFetching || looked.isError}
          >
            {fresh === 0 ? "Nothing new can go in" : `Bring in ${fresh} new`}
          </Button>
          {bring.isPending && <span role="status">Writing {fresh} rows. It goes on if the line is cut.</span>}
        </p>
      )}
    </div>
  );
}

function Rows({ found, after }: { found: RowsLookedAt; after: boolean }) {
  if (found.missing.length > 0) return null;
  return (
    <>
      <Fates found={found} after={after} />
      {!after && <FirstRows found={found} />}
    </>
  );
}
