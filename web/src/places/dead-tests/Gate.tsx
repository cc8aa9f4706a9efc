import { Button, Textarea } from "@mantine/core";
import { useState } from "react";
import client, { answer, asTyped, type Sheet, type SheetEntry, type SheetEntrySent } from "../../api/client";
import { useKeep } from "../../api/outbox/useOutbox";
import type { EventBody } from "../../api/outbox/waiting";
import { SHEET } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { HoldButton } from "../../parts/HoldButton";
import { LastKnown } from "../../parts/LastKnown";
import { useSecond } from "../../parts/useSecond";
import { timeOf } from "../../reading/dates";
import classes from "./Gate.module.css";
import shared from "./Sheet.module.css";
import type { PutDown } from "./usePutDown";

/** Clear to energise: what is in the way, what is said, whose locks are on; then one attempt, held, not tapped. */
export function Gate({
  sheet,
  cutOff,
  putDown,
  onStep,
}: {
  sheet: Sheet;
  /** Since when this is only last known; null while it is as good as new. */
  cutOff: number | null;
  putDown: PutDown;
  onStep: (step: string) => void;
}) {
  const { gate } = sheet;
  const [reason, setReason] = useState("");
  const [overriding, override] = useState(false);
  const { keep: keepOfProof, waiting: ofProof } = useKeep(
    "proof-event",
    sheet.proof?.id ?? "",
    sheet.proof?.name ?? "",
  );
  const takenOff = (source: string) =>
    ofProof.taken.some(({ body }) => (body as EventBody).entry.source === source);
  const takeOff = (lock: (typeof gate.locks)[number]) =>
    keepOfProof(
      { entry: { type: "unlocked", source: lock.source }, tester: null, leads: null, adapters: [] },
      `Lock ${lock.name} off`,
    );
  const said = (what: string) => putDown.unsent.some((entry) => entry.type === "said" && entry.what === what);
  const second = useSecond("energise");
  const energising = useRecord(SHEET, async (entry: SheetEntry, { id }) => {
    await second.stand(id);
    return answer(
      client.PUT("/api/sheets/{sheet_id}/entries/{entry_id}", {
        params: { path: { sheet_id: sheet.id, entry_id: id } },
        body: { entry: asTyped<SheetEntrySent>(entry) },
      }),
    );
  });
  const wrong = energising.error?.problems.find(({ path }) => !second.placed.includes(path));
  const busy = energising.isPending || !second.there;
  if (gate.energised)
    return (
      <div className={classes.done}>
        <p className={shared.said}>
          Energised at {timeOf(gate.energised.at, sheet.practice)} by {gate.energised.by}. The proof of
          isolation is ended: treat as live.
        </p>
        {gate.energised.reason && <p>Though something was outstanding: {gate.energised.reason}</p>}
      </div>
    );
  const clear = gate.in_the_way.length === 0;
  const measured = gate.in_the_way.filter((way) => way.line !== "clear");
  const energise = () =>
    energising.mutate({ type: "energised", ...(clear || !reason.trim() ? {} : { reason: reason.trim() }) });
  return (
    <>
      {cutOff !== null && (
        <p className={shared.wrong} role="alert">
          <LastKnown since={cutOff} /> Nothing is cleared to energise until the server answers: somebody may
          have hands in it.
        </p>
      )}
      {measured.length > 0 && (
        <>
          <h3>Outstanding</h3>
          <ul className={classes.ways}>
            {measured.map((way) => (
              <li key={`${way.code} ${way.line}`}>
                <button type="button" onClick={() => onStep(way.line ?? "")}>
                  {way.text}
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      {clear && cutOff === null && <p className={shared.said}>Nothing outstanding.</p>}
      <h3>Said, and locks</h3>
      <div className={classes.statements}>
        {gate.statements.map((s) =>
          s.said_by ? (
            <p key={s.id} className={shared.said}>
              {s.title}, says {s.said_by}
            </p>
          ) : (
            <Button
              key={s.id}
              variant="default"
              disabled={said(s.id)}
              onClick={() => putDown.put({ type: "said", what: s.id }, s.title)}
            >
              {s.title}
            </Button>
          ),
        )}
        {gate.locks.map((lock) =>
          lock.taken_by ? (
            <p key={lock.source} className={shared.said}>
              Lock {lock.name} off, by {lock.taken_by}
            </p>
          ) : lock.own ? (
            <Button
              key={lock.source}
              variant="default"
              disabled={takenOff(lock.source)}
              onClick={() => takeOff(lock)}
            >
              My lock {lock.name} is off
            </Button>
          ) : (
            <p key={lock.source}>
              Lock {lock.name} is {lock.put_by}'s to take off.
            </p>
          ),
        )}
        {gate.locks.some((l) => !l.taken_by) && (
          <p className="quiet">The last lock off ends the proof of isolation: nothing is touched after it.</p>
        )}
      </div>
      {wrong && (
        <p className={shared.wrong} role="alert">
          {wrong.text}
        </p>
      )}
      {(clear || overriding) && cutOff === null && second.form}
      {clear && cutOff === null && <HoldButton label="Hold: energise now" onHeld={energise} busy={busy} />}
      {!clear && !overriding && cutOff === null && (
        <Button variant="subtle" onClick={() => override(true)}>
          Energise even so
        </Button>
      )}
      {!clear && overriding && cutOff === null && (
        <>
          <Textarea
            label="Why it is energised even so"
            description={`In ${gate.shortest_reason} letters or more. It stays on the record with your name.`}
            autosize
            minRows={2}
            value={reason}
            onChange={(event) => setReason(event.currentTarget.value)}
          />
          <HoldButton label="Hold: energise even so" onHeld={energise} busy={busy} />
        </>
      )}
      <p className={classes.caution}>
        This work can kill. Your local code, permits and the maker's instructions come first. One attempt: if
        it trips, do not reset it; come back to this sheet.
      </p>
    </>
  );
}
