import client, { answer, type TesterPage } from "../../api/client";
import { FAULT } from "../../api/records";
import { useMay } from "../../api/session";
import { useRecord } from "../../api/useRecord";
import { TwoTapButton } from "../../parts/TwoTapButton";
import classes from "./TesterPlace.module.css";

/** A tester known from a file: what it showed confirms nothing until somebody says that it is the crew's. */
export function CameFromAFile({ page }: { page: TesterPage }) {
  const { tester, strange, from_file, taken_over } = page;
  const ours = useRecord(FAULT, () =>
    answer(client.PUT("/api/testers/{tester_id}/ours", { params: { path: { tester_id: tester.id } } })),
  );
  const may = useMay("take-over");
  if (!strange)
    return (
      <p className="quiet">
        Came from a {from_file}. {taken_over && `Taken over as yours by ${taken_over}.`}
      </p>
    );
  return (
    <div className={classes.strange}>
      <p>
        <strong>Came from a {from_file}.</strong> What it showed may warn and confirms nothing, unless it is
        in your own kit and you answer for how it was looked after.
      </p>
      {may ? (
        <TwoTapButton
          variant="default"
          asks="It is ours"
          again="Yes, ours: what it showed counts"
          loading={ours.isPending}
          onTapped={() => ours.mutate()}
        />
      ) : (
        <p className="quiet">An electrician of your crew says whether it is yours.</p>
      )}
      {ours.isError && <p role="alert">{ours.error.message}</p>}
    </div>
  );
}
