import { IconCheck, IconCircle, IconCircleFilled } from "@tabler/icons-react";
import type { Practice, Proof } from "../../api/client";
import { wordOf } from "../../api/reference";
import { timeOf } from "../../reading/dates";
import classes from "./Steps.module.css";

type Line = { name: string; said: string; done: boolean };

/** The whole way of a proof, what is done ticked, what comes next marked. */
export function Steps({ proof, practice }: { proof: Proof; practice: Practice }) {
  const lines = linesOf(proof);
  const next = lines.findIndex((line) => !line.done);
  return (
    <>
      <ol className={classes.lines}>
        {lines.map((line, i) => (
          <li
            key={line.name}
            data-next={i === next || undefined}
            aria-current={i === next ? "step" : undefined}
          >
            {line.done ? (
              <IconCheck size={20} aria-label="done" className={classes.tick} />
            ) : i === next ? (
              <IconCircleFilled size={14} aria-label="next" />
            ) : (
              <IconCircle size={14} aria-label="not yet" />
            )}
            <div>
              <strong>{line.name}</strong>
              <span>{line.said}</span>
            </div>
          </li>
        ))}
      </ol>
      {proof.state.problems.length > 0 && (
        <ul className={classes.problems} aria-label="Outstanding">
          {proof.state.problems.map((problem) => (
            <li key={`${problem.code} ${problem.event}`}>{problem.text}</li>
          ))}
        </ul>
      )}
      {proof.state.loosened.length > 0 && (
        <p className={classes.loosened}>
          <strong>This crew's own rule:</strong> {proof.state.loosened.join("; ")}. Reason:{" "}
          {proof.state.reason}.
        </p>
      )}
      {proof.wet && (
        <p className={classes.loosened}>Wet place: 25 V counts as {wordOf(practice, "line")} voltage.</p>
      )}
    </>
  );
}

function linesOf(proof: Proof): Line[] {
  const { state, events } = proof;
  const codes = new Set(state.missing.map((m) => m.code));
  const isolated = state.sources.filter((s) => s.off && s.locked);
  const locks = isolated.map((s) => `${s.label}${s.lock ? `, lock ${s.lock}` : ""}`).join(" · ");
  const counting = (type: string) => events.filter((e) => e.type === type && e.counts);
  const first = counting("proved")[0];
  const last = counting("proved").at(-1);
  const screened = events.filter((e) => e.type === "screened").at(-1);
  const done = state.pairs.filter((p) => p.done).length;
  const again = first !== undefined && last !== first && !codes.has("not-proved-after");
  const lines: Line[] = [];
  if (state.next.step === "find-source")
    lines.push({ name: "Find what feeds it", said: "something is not off", done: false });
  lines.push({
    name:
      isolated.length === state.sources.length
        ? `All sources off and locked (${isolated.length})`
        : `${isolated.length} of ${state.sources.length} sources off and locked`,
    said: locks || "every source that reaches the place",
    done: isolated.length === state.sources.length,
  });
  if (screened)
    lines.push({
      name: screened.entry.alarm ? "Screened: alarm" : "Screened, silent",
      said: "cannot confirm safe",
      done: true,
    });
  lines.push(
    {
      name: first ? `${first.tester_label} proved, ${timeOf(first.at, proof.practice)}` : "Prove the tester",
      said: first ? provedOn(first.entry) : "known live source or proving unit",
      done: first !== undefined,
    },
    {
      name: `Every pair, ${done} of ${state.pairs.length}`,
      said: state.prove_again_by
        ? `same tester, same leads, before ${timeOf(state.prove_again_by, proof.practice)}`
        : "same tester, same leads",
      done: done === state.pairs.length,
    },
    {
      name: again && last ? `Proved again, ${timeOf(last.at, proof.practice)}` : "Prove it again",
      said: again && last ? provedOn(last.entry) : "a failed proof makes the pairs invalid",
      done: again,
    },
    {
      name: state.stated_at ? "Confirmed dead" : "Confirm dead",
      said: state.stated_at
        ? `${state.stated_by}, ${timeOf(state.stated_at, proof.practice)}`
        : "hold, with your name",
      done: state.stated_at !== null,
    },
  );
  return lines;
}

function provedOn(entry: Record<string, unknown>): string {
  const volts = entry.shows_v ?? entry.at_least;
  const range = entry.range ? `, ${entry.range === "auto" ? "auto range" : `range ${entry.range}`}` : "";
  return `${String(entry.against ?? "known source").replace("-", " ")}, ${volts} V ${String(entry.mode ?? "").toUpperCase()}${range}`;
}
