import { Button, Textarea, TextInput } from "@mantine/core";
import { useState } from "react";
import { useNavigate } from "react-router";
import client, { answer, type Signed } from "../../api/client";
import { useOutbox } from "../../api/outbox/useOutbox";
import { SIGN_OFF } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import folds from "../../parts/Fold.module.css";
import { HoldButton } from "../../parts/HoldButton";
import { useSecond } from "../../parts/useSecond";
import wrongs from "../../parts/Wrong.module.css";
import { sentence } from "../../reading/sentence";
import classes from "./Report.module.css";

const MOST_SAID = 3;

/** A name and a held press. What was not tested gets its reason first. */
export function SignForm(props: { what: string; of: string; name: string; content: Signed }) {
  const { what, of, content } = props;
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const [remarks, setRemarks] = useState("");
  const [all, setAll] = useState("");
  const [own, setOwn] = useState<Record<string, string>>({});
  const waits = useOutbox().list.length;
  const navigate = useNavigate();
  const why = (id: string, given: string) => own[id] ?? (given || all);
  const second = useSecond("sign-off");
  const sign = useRecord(SIGN_OFF, async (_: undefined, { id }) => {
    await second.stand(id);
    return answer(
      client.PUT("/api/sign-offs/{sign_off_id}", {
        params: { path: { sign_off_id: id } },
        body: {
          what: what as "circuit" | "site" | "visit",
          of,
          typed_name: name,
          remarks,
          whys: Object.fromEntries(content.not_tested.map((one) => [one.id, why(one.id, one.why)])),
        },
      }),
    );
  });
  if (!open)
    return (
      <p className={classes.noPrint}>
        <Button onClick={() => setOpen(true)}>Sign this off</Button>
      </p>
    );
  const problems = sign.error?.problems.filter(({ path }) => !second.placed.includes(path)) ?? [];
  const missing = content.not_tested.filter((one) => why(one.id, one.why).trim() === "").length;
  return (
    <section className={classes.sign} aria-labelledby="sign-off">
      <h2 id="sign-off">Sign this off</h2>
      <p>
        What stands below is kept as it is now, with your name and the time, and can never be changed. Later
        readings make the next sign-off.
      </p>
      {waits > 0 && (
        <p role="alert">
          {waits === 1 ? "1 record waits" : `${waits} records wait`} to be sent and will not be part of it.
        </p>
      )}
      <div className={classes.fields}>
        {content.not_tested.length > 0 && (
          <>
            <TextInput
              label={`Why ${content.not_tested.length === 1 ? "1 thing was" : `${content.not_tested.length} things were`} not tested`}
              description="One reason for all that have none of their own."
              value={all}
              onChange={(event) => setAll(event.currentTarget.value)}
              maxLength={400}
            />
            <details className={folds.fold}>
              <summary>
                {missing > 0 ? `${missing} without a reason` : "Each has a reason"}: see them one by one
              </summary>
              <div className={classes.fields}>
                {content.not_tested.map((one) => (
                  <TextInput
                    key={one.id}
                    label={one.what}
                    value={why(one.id, one.why)}
                    onChange={(event) => setOwn({ ...own, [one.id]: event.currentTarget.value })}
                    maxLength={400}
                  />
                ))}
              </div>
            </details>
          </>
        )}
        <Textarea
          label="Remarks"
          value={remarks}
          onChange={(event) => setRemarks(event.currentTarget.value)}
          maxLength={2000}
          autosize
        />
        <TextInput
          label="Your name"
          description={`As it is on the record: ${props.name}`}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
          autoComplete="off"
        />
        {second.form}
        {problems.slice(0, MOST_SAID).map(({ path, text }) => (
          <p key={path + text} className={wrongs.wrong} role="alert">
            {sentence(text)}
          </p>
        ))}
        <HoldButton
          label="Hold to sign"
          busy={sign.isPending || !second.there}
          onHeld={() =>
            sign.mutate(undefined, { onSuccess: ({ id }) => navigate(`/record/sign-offs/${id}`) })
          }
        />
      </div>
    </section>
  );
}
