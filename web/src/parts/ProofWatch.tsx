import { Button } from "@mantine/core";
import { useEffect, useRef, useState } from "react";
import { Link, useLocation } from "react-router";
import { useProofs } from "../api/queries";
import { timeOf } from "../reading/dates";
import { callAttention } from "./callAttention";
import classes from "./LineBar.module.css";
import { type Alarm, alarmsDue } from "./proofAlarms";

const LOOK_MS = 1_000;

/** `title`: what is told of it, which stays until it is seen, renewed, or the next is told. */
type Told = Alarm & { title: string };

/** On every place, in the page: a proof of isolation that is about to run out, and one that has, until that was seen. */
export function ProofWatch() {
  const { data } = useProofs();
  const { pathname } = useLocation();
  const known = useRef(new Set<string>());
  const [told, tell] = useState<Told[]>([]);
  useEffect(() => {
    if (!data) return;
    const look = () => {
      for (const alarm of alarmsDue(data.proofs, data.asked, known.current)) {
        const over = alarm.ms === 0;
        const title = over
          ? `${alarm.name}: no longer valid`
          : `${alarm.name}: valid until ${timeOf(Date.now() + alarm.ms)}`;
        tell((before) => [...before.filter((one) => one.proof !== alarm.proof), { ...alarm, title }]);
        callAttention(over ? "over" : "soon", title, bodyOf(alarm), alarm.key);
      }
    };
    look();
    const timer = setInterval(look, LOOK_MS);
    return () => clearInterval(timer);
  }, [data]);
  const ends = (proof: string) => data?.proofs.find((one) => one.id === proof)?.expires_at;
  const shown = told.filter(({ proof, ms, end }) => ms === 0 || ends(proof) === end);
  return (
    <>
      {shown.map((one) => (
        <div key={one.key} className={classes.bar} data-over={one.ms === 0 || undefined} role="alert">
          <strong>
            {one.title}. {bodyOf(one)}
          </strong>
          {pathname !== `/prove-dead/${one.proof}` && (
            <Link to={`/prove-dead/${one.proof}`}>Open the proof</Link>
          )}
          <Button
            variant="subtle"
            onClick={() => tell((before) => before.filter(({ key }) => key !== one.key))}
          >
            Seen
          </Button>
        </div>
      ))}
    </>
  );
}

const bodyOf = ({ ms }: Alarm) =>
  ms === 0 ? "Its time is over. Treat as live." : "Confirm that you are here, or come off.";
