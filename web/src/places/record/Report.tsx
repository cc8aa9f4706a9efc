import type { Signed, SignedCircuit, SignedPoint } from "../../api/client";
import { theReference } from "../../api/reference";
import { VerdictShape, WORDS } from "../../parts/VerdictShape";
import { dayAndTimeOf, dayOf } from "../../reading/dates";
import classes from "./Report.module.css";
import { SignedRun } from "./SignedRun";

/** What was found, as a page that prints: the same as the PDF has. */
export function Report({ content }: { content: Signed }) {
  const when = (at: string) => dayAndTimeOf(at, content.practice);
  const whens = [...new Set(content.next.map((one) => one.by_when))];
  return (
    <article className={classes.report}>
      <p className={classes.caution}>{theReference().report.caution}</p>
      <h2>What was found</h2>
      <table>
        <thead>
          <tr>
            <th scope="col">Verdict</th>
            <th scope="col">Circuit</th>
            <th scope="col">Points, dead tests</th>
          </tr>
        </thead>
        <tbody>
          {content.circuits.map((circuit) => (
            <tr key={circuit.id}>
              <td>
                <Verdict kind={circuit.verdict} />
              </td>
              <th scope="row">
                {circuit.name}
                <small>{circuit.board}</small>
              </th>
              <td>
                {circuit.points.length}, {circuit.dead_tests.length}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet">The verdict of a circuit is that of its worst point.</p>
      <h2>What has to be done next</h2>
      {whens.length === 0 && <p>Nothing that was tested asks for anything.</p>}
      {whens.map((by) => (
        <div key={by}>
          <strong>{by}</strong>
          <ul>
            {content.next
              .filter((one) => one.by_when === by)
              .map((one) => (
                <li key={one.what}>{one.what}</li>
              ))}
          </ul>
        </div>
      ))}
      {content.visit && content.visit.open.length > 0 && (
        <>
          <h2>Left open</h2>
          <ul>
            {content.visit.open.map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        </>
      )}
      {content.remarks && (
        <>
          <h2>Remarks</h2>
          <p>{content.remarks}</p>
        </>
      )}
      {content.circuits.map((circuit) => (
        <OfCircuit key={circuit.id} circuit={circuit} when={when} />
      ))}
      <NotTested content={content} />
      <Testers content={content} />
      <Limits content={content} />
    </article>
  );
}

function Verdict({ kind }: { kind: string }) {
  return (
    <span className={classes.verdict}>
      <VerdictShape kind={kind} size={20} /> {WORDS[kind] ?? kind}
    </span>
  );
}

type When = (at: string) => string;

function Photos({ photos }: { photos: SignedPoint["photos"] }) {
  return photos.map((photo) => (
    <a key={photo.id} href={`/api/photos/${photo.id}`} target="_blank" rel="noreferrer">
      <img
        className={classes.photo}
        src={`/api/photos/${photo.id}`}
        alt={photo.on || "Photo"}
        loading="lazy"
      />
    </a>
  ));
}

function OfCircuit({ circuit, when }: { circuit: SignedCircuit; when: When }) {
  return (
    <section aria-label={circuit.name}>
      <h2>{circuit.name}</h2>
      <p>
        <Verdict kind={circuit.verdict} />{" "}
        <span className="quiet">
          {circuit.board}, {circuit.supply}
        </span>
      </p>
      <p>{circuit.schedule}</p>
      {circuit.points.length > 0 && <SignedRun circuit={circuit} />}
      {circuit.points.map((point) => (
        <OfPoint key={point.id} point={point} when={when} />
      ))}
      <Photos photos={circuit.photos} />
      {circuit.dead_tests.length > 0 && <DeadTests tests={circuit.dead_tests} when={when} />}
      {circuit.proofs.map((proof) => (
        <p key={proof.id}>
          <strong>Isolation:</strong> {proof.name}, {theReference().report.proofs[proof.state] ?? proof.state}
          {proof.proved_at && `, proved dead ${when(proof.proved_at)}`}
          {proof.stated_by && `, confirmed by ${proof.stated_by}`}.
          {proof.locks.length > 0 && ` Locks: ${proof.locks.join("; ")}.`}
        </p>
      ))}
    </section>
  );
}

function OfPoint({ point, when }: { point: SignedPoint; when: When }) {
  const { states } = theReference().report;
  return (
    <section aria-label={point.name} className={classes.point}>
      <h3>{point.name}</h3>
      <p>
        <Verdict kind={point.verdict} />{" "}
        <span className="quiet">
          Insulation: {states[point.insulation.state]}. Protective device: {states[point.protection.state]}.
        </span>
      </p>
      <p>
        {point.summary}
        {point.could_be.length > 0 &&
          ` Still possible: ${point.could_be.map((one) => one.title).join("; ")}.`}
        {point.decides && ` Next reading: ${point.decides}.`}
      </p>
      <Photos photos={point.photos} />
      {point.readings.length > 0 && (
        <div className={classes.scrolls}>
          <table>
            <thead>
              <tr>
                {["Reading", "Shown", "How", "When", "By, with"].map((name) => (
                  <th key={name} scope="col">
                    {name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {point.readings.map((one) => (
                <tr key={one.id}>
                  <th scope="row">{one.where}</th>
                  <td className="mono">{one.seen}</td>
                  <td>
                    {one.how}
                    {one.why && <em className={classes.why}>Does not count: {one.why}</em>}
                  </td>
                  <td>{when(one.at)}</td>
                  <td>
                    {[one.by, one.tester, one.source !== "typed" && one.source].filter(Boolean).join(", ")}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

function DeadTests({ tests, when }: { tests: SignedCircuit["dead_tests"]; when: When }) {
  return (
    <>
      <h3>Dead tests</h3>
      <div className={classes.scrolls}>
        <table>
          <thead>
            <tr>
              {["Test", "Shown", "Result", "Limit", "When, by, with"].map((name) => (
                <th key={name} scope="col">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {tests.map((one) => (
              <tr key={one.id}>
                <th scope="row">
                  {one.title}
                  <small>{one.text}</small>
                  {one.doubt && <em className={classes.why}>Does not count: {one.doubt}</em>}
                </th>
                <td className="mono">{one.shown}</td>
                <td>{theReference().report.results[one.result] ?? one.result}</td>
                <td>
                  {one.limit}
                  <small>{one.source}</small>
                </td>
                <td>{[when(one.at), one.by, one.tester].filter(Boolean).join(", ")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

function NotTested({ content }: { content: Signed }) {
  if (content.not_tested.length === 0) return null;
  return (
    <>
      <h2>Not tested</h2>
      <ul>
        {content.not_tested.map((one) => (
          <li key={one.id}>
            {one.what}
            {one.why && <span className="quiet">: {one.why}</span>}
          </li>
        ))}
      </ul>
    </>
  );
}

function Testers({ content }: { content: Signed }) {
  if (content.testers.length === 0) return null;
  return (
    <>
      <h2>Measured with</h2>
      <ul>
        {content.testers.map((one) => (
          <li key={one.id}>
            <strong>{one.label}</strong>, {one.kind}
            {one.rating && `, ${one.rating}`}. Calibration due:{" "}
            {one.calibration_due ? dayOf(one.calibration_due, content.practice) : "not recorded"}. Checked
            that day: {one.checked_at ? dayAndTimeOf(one.checked_at, content.practice) : "no check recorded"}.
            {one.attention.length > 0 && ` ${one.attention.join("; ")}.`}
          </li>
        ))}
      </ul>
    </>
  );
}

function Limits({ content }: { content: Signed }) {
  if (content.limits.length === 0) return null;
  return (
    <>
      <h2>Held against</h2>
      <ul>
        {content.limits.map((one) => (
          <li key={`${one.id} ${one.says}`}>
            {one.title}: {one.says} <span className="quiet">({one.source})</span>
          </li>
        ))}
      </ul>
    </>
  );
}
