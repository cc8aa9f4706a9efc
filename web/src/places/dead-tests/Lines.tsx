import { Button, Modal, Textarea } from "@mantine/core";
import { useState } from "react";
import type { Sheet, TestLine } from "../../api/client";
import { BarKey, ResultBar } from "../../parts/ResultBar";
import { VerdictShape } from "../../parts/VerdictShape";
import { dayAndTimeOf } from "../../reading/dates";
import { Outcome } from "./Outcome";
import { shapeOf, wordOf } from "./result";
import classes from "./Sheet.module.css";
import type { PutDown } from "./usePutDown";

/** The lines of a step: each with what it read and where that lies; a tap reads it, or reads it again. */
export function Lines(props: {
  sheet: Sheet;
  lines: TestLine[];
  current: string | null;
  onPick: (line: string) => void;
  putDown: PutDown;
}) {
  const [leaving, leave] = useState<TestLine | null>(null);
  const waits = (line: TestLine) => props.putDown.unsent.some((entry) => entry.line === line.id);
  return (
    <>
      <ul className={classes.lines}>
        {props.lines.map((line) => (
          <li key={line.id} data-current={line.id === props.current || undefined}>
            <button
              type="button"
              onClick={() => props.onPick(line.id)}
              aria-current={line.id === props.current}
            >
              <VerdictShape kind={shapeOf(line.taken?.outcome.result ?? "")} size={22} />
              <span className={classes.lineTitle}>
                <strong>{line.title}</strong>
                <span className="quiet">
                  {waits(line)
                    ? "Recorded, not judged yet"
                    : line.taken
                      ? wordOf(line.taken.outcome.result)
                      : line.left
                        ? `Left: ${line.left}`
                        : "Not read yet"}
                  {line.earlier > 0 && `, ${line.earlier} earlier`}
                  {line.taken?.doubt && ", does not count"}
                </span>
              </span>
              <span className={classes.lineShown}>{line.taken?.shown}</span>
              <span className={classes.lineBar}>
                {line.taken?.bar && (
                  <ResultBar bar={line.taken.bar} fails={line.taken.outcome.result === "fail"} />
                )}
              </span>
            </button>
            {line.taken && line.id === props.current && (
              <TakenDetails line={line} practice={props.sheet.practice} putDown={props.putDown} />
            )}
            {!line.taken && !line.left && line.may_be_left && line.id === props.current && (
              <Button variant="subtle" onClick={() => leave(line)}>
                Knowingly leave it
              </Button>
            )}
          </li>
        ))}
      </ul>
      {props.lines.some((line) => line.taken?.bar) && <BarKey />}
      <Modal opened={leaving !== null} onClose={() => leave(null)} title={`Leave ${leaving?.title ?? ""}`}>
        {leaving && (
          <Leave
            line={leaving}
            putDown={props.putDown}
            onDone={() => leave(null)}
            shortest={props.sheet.gate.shortest_reason}
          />
        )}
      </Modal>
    </>
  );
}

/** What is in force of a line, with what can be done about it. */
function TakenDetails({ line, practice, putDown }: { line: TestLine; practice: string; putDown: PutDown }) {
  const { taken } = line;
  if (!taken) return null;
  return (
    <div className={classes.taken}>
      <Outcome judged={taken} withoutBar />
      <p className="quiet">
        {[taken.tester_label, taken.by, dayAndTimeOf(taken.at, practice)].filter(Boolean).join(" · ")}
      </p>
      <div className={classes.keys}>
        {taken.outcome.question && !taken.believed && (
          <Button
            variant="default"
            onClick={() =>
              putDown.put({ type: "believed", test: taken.id }, `${line.title}: it stands as written`)
            }
          >
            It stands as written
          </Button>
        )}
        <Button
          variant="subtle"
          onClick={() => putDown.put(null, `Take back ${line.title}`, { supersedes: taken.id })}
        >
          Take it back
        </Button>
      </div>
    </div>
  );
}

function Leave(props: { line: TestLine; putDown: PutDown; onDone: () => void; shortest: number }) {
  const [reason, setReason] = useState("");
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        props.putDown.put({ type: "left", line: props.line.id, reason }, `Left: ${props.line.title}`);
        props.onDone();
      }}
    >
      <Textarea
        label="Why it is left"
        description={`It stays on the record. ${props.shortest} letters or more.`}
        autosize
        minRows={2}
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      <Button type="submit" className={classes.main} disabled={reason.trim().length < props.shortest}>
        Leave it
      </Button>
    </form>
  );
}
