import { Anchor, Button, Modal } from "@mantine/core";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { TesterPage } from "../../api/client";
import { useTesterPage } from "../../api/queries";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { dayAndTimeOf, dayOf } from "../../reading/dates";
import { CameFromAFile } from "./CameFromAFile";
import { CheckWalk } from "./CheckWalk";
import { FitTable } from "./FitTable";
import { Faults, FoundFaulty } from "./FoundFaulty";
import shared from "./Kit.module.css";
import { OnTheWire } from "./OnTheWire";
import { TesterForm } from "./TesterForm";
import classes from "./TesterPlace.module.css";

const TITLES = {
  check: (name: string) => `Today's check: ${name}`,
  edit: (name: string) => name,
  faulty: (name: string) => `${name} was found faulty`,
};

/** One tester: what it is fit for today, what it is blind to, when it was last proved. */
export function TesterPlace() {
  const { testerId = "" } = useParams();
  const found = useTesterPage(testerId);
  const navigate = useNavigate();
  const [open, show] = useState<"check" | "edit" | "faulty" | null>(null);
  if (found.isError && !found.data) return <Failure error={found.error} retry={() => found.refetch()} />;
  if (!found.data) return <div aria-busy="true" />;
  const { tester } = found.data;
  const rating =
    tester.category && tester.rated_v
      ? `category ${tester.category} ${tester.rated_v} V`
      : "rating not recorded";
  return (
    <Page
      title={tester.label}
      back={["/kit", "Kit"]}
      under={`${tester.kind_name} · ${rating}`}
      actions={
        <>
          <Button variant="default" onClick={() => show("edit")}>
            Change
          </Button>
          <Button variant="default" component={Link} to={`/kit/holding?tester=${tester.id}`}>
            What am I holding?
          </Button>
          <Button onClick={() => show("check")}>Today's check</Button>
        </>
      }
    >
      {found.data.from_file && <CameFromAFile page={found.data} />}
      {tester.attention.length > 0 && (
        <ul className={classes.attention}>
          {tester.attention.map((finding) => (
            <li key={finding.code}>{finding.text}</li>
          ))}
        </ul>
      )}
      <div className={shared.columns}>
        <section aria-labelledby="fit">
          <h2 id="fit">What is it fit for today?</h2>
          <FitTable fits={found.data.fits} />
        </section>
        <div>
          <section aria-labelledby="blind">
            <h2 id="blind">What is it blind to?</h2>
            <p>It says: {found.data.says}</p>
            <ul className={classes.blind}>
              {found.data.blind_to.map((what) => (
                <li key={what}>{what}</li>
              ))}
            </ul>
          </section>
          <section aria-labelledby="proved">
            <h2 id="proved">When was it last proved?</h2>
            <LastProof page={found.data} />
          </section>
          {tester.low_z && (
            <section aria-labelledby="wire">
              <h2 id="wire">Is it on a wire?</h2>
              <OnTheWire testerId={tester.id} />
            </section>
          )}
          <section aria-labelledby="facts">
            <h2 id="facts">On record</h2>
            <Facts entry={tester.entry} />
          </section>
          <section aria-labelledby="faults">
            <h2 id="faults">Was it ever faulty?</h2>
            <Faults page={found.data} onFound={() => show("faulty")} />
          </section>
          <p>
            <Anchor component={Link} to={`/record/timeline/tester/${tester.id}`}>
              Everything it took
            </Anchor>
          </p>
          <section aria-labelledby="checks">
            <h2 id="checks">Checks</h2>
            <Checks page={found.data} />
          </section>
        </div>
      </div>
      <Modal
        opened={open !== null}
        onClose={() => show(null)}
        size="lg"
        title={TITLES[open ?? "edit"](tester.label)}
      >
        {open === "check" && <CheckWalk testerId={tester.id} done={() => show(null)} />}
        {open === "faulty" && <FoundFaulty page={found.data} done={() => show(null)} />}
        {open === "edit" && (
          <TesterForm
            tester={tester}
            done={() => {
              show(null);
              void found.refetch().then((after) => after.isError && navigate("/kit"));
            }}
          />
        )}
      </Modal>
    </Page>
  );
}

function LastProof({ page: { last_proof: last } }: { page: TesterPage }) {
  if (!last)
    return <p className="quiet">Never on record. Prove it before and after it is to clear anything.</p>;
  return (
    <p>
      <strong>{dayAndTimeOf(last.at)}</strong>: {last.said}, in{" "}
      <Anchor component={Link} to={`/prove-dead/${last.proof}`}>
        {last.proof_name}
      </Anchor>
    </p>
  );
}

const FACTS: [string, string, string][] = [
  ["functions", "Functions", ""],
  ["steps_v", "Lamp steps", "V"],
  ["input_ohm", "Input", "Ω"],
  ["accuracy_percent", "Accuracy", "% of reading"],
  ["accuracy_counts", "Counts", ""],
  ["resolution", "Resolution", "V"],
  ["test_ma", "Test current", "mA"],
  ["test_v", "Test voltages", "V DC"],
  ["always_on_light", "Light always on", ""],
  ["calibration_due", "Calibration due", ""],
  ["fuse", "Ampere fuse", ""],
  ["known_issue", "Known issue", ""],
];

function Facts({ entry }: { entry: Record<string, unknown> }) {
  const said = (key: string, value: unknown) =>
    key === "calibration_due"
      ? dayOf(`${value}`)
      : Array.isArray(value)
        ? value.join(", ").replaceAll("-", " ")
        : typeof value === "boolean"
          ? value
            ? "yes"
            : "no"
          : typeof value === "number"
            ? value.toLocaleString()
            : `${value}`;
  const known = FACTS.filter(([key]) => entry[key] !== undefined && entry[key] !== "");
  if (known.length === 0) return <p className="quiet">Only its kind and rating.</p>;
  return (
    <dl className={classes.facts}>
      {known.map(([key, name, unit]) => (
        <div key={key}>
          <dt>{name}</dt>
          <dd>
            {said(key, entry[key])} {unit}
          </dd>
        </div>
      ))}
    </dl>
  );
}

function Checks({ page: { checks, items } }: { page: TesterPage }) {
  if (checks.length === 0) return <p className="quiet">None yet. It takes a minute.</p>;
  const said = (entry: Record<string, unknown>) =>
    items
      .filter((item) => entry[item.id] !== undefined)
      .map((item) => {
        const value = entry[item.id];
        return `${item.asks.toLowerCase()} ${item.unit ? `${value} Ω` : (value === "good" ? item.good : item.bad).toLowerCase()}`;
      })
      .join(", ");
  return (
    <ul className={classes.checks}>
      {checks.map((check) => (
        <li key={check.at}>
          <strong>{dayAndTimeOf(check.at)}</strong> {check.by} {check.in_force && <em>counts today</em>}
          <span className="quiet">{said(check.entry)}</span>
        </li>
      ))}
    </ul>
  );
}
