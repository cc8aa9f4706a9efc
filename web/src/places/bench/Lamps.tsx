import { Button } from "@mantine/core";
import { useState } from "react";
import type { Practice } from "../../api/client";
import { theReference } from "../../api/reference";
import { CASE } from "../../api/sandbox";
import classes from "./Lamps.module.css";

/** The three lamps of a plug-in tester, tapped as they are seen; what they mean is not looked up anywhere. */
export function Lamps(props: {
  practice: Practice;
  terminals: string[];
  ready: boolean;
  onRecord: (lit: Record<string, boolean>) => void;
}) {
  const { practice, terminals } = props;
  const here = (end: string) =>
    terminals.includes(end) || (end === "L" && terminals.some((t) => /^L/.test(t)));
  const lamps = theReference().lamps.filter(({ one, other }) => here(one) && here(other));
  const [lit, setLit] = useState<Record<string, boolean>>({});
  const letter = (end: string) => practice.letters[end] ?? end;
  return (
    <div className={classes.lamps}>
      {lamps.map(({ id: name, one, other }) => {
        const on = lit[name] ?? false;
        return (
          <button
            key={name}
            type="button"
            className={classes.lamp}
            aria-pressed={on}
            aria-label={`${letter(one)}–${letter(other)} ${on ? "lit" : "dark"}, lamp ${letter(one)} to ${letter(other)}`}
            onClick={() => setLit({ ...lit, [name]: !on })}
          >
            <svg viewBox="0 0 60 60" aria-hidden="true">
              <circle cx="30" cy="30" r="17" />
              {on && <path d="M30 2v7M30 51v7M2 30h7M51 30h7M10 10l5 5M45 45l5 5M50 10l-5 5M15 45l-5 5" />}
            </svg>
            <span>
              {letter(one)}–{letter(other)} {on ? "lit" : "dark"}
            </span>
          </button>
        );
      })}
      <Button
        variant={CASE === null ? "filled" : "default"}
        className={classes.record}
        disabled={!props.ready}
        onClick={() => props.onRecord(Object.fromEntries(lamps.map(({ id }) => [id, lit[id] ?? false])))}
      >
        Record as seen
      </Button>
    </div>
  );
}
