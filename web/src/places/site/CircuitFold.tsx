import { Button, Title } from "@mantine/core";
import { Link } from "react-router";
import type { Circuit, Practice } from "../../api/client";
import { wordOf } from "../../api/reference";
import { Run } from "../../parts/Run";
import { VerdictShape } from "../../parts/VerdictShape";
import classes from "./Site.module.css";

/** A circuit: its name and its verdicts, and folded open what can be done with it and its run of points. */
export function CircuitFold(props: {
  siteId: string;
  circuit: Circuit;
  practice: Practice;
  isOpen: boolean;
  onChange: () => void;
  onAdd: () => void;
}) {
  const { siteId, circuit, practice } = props;
  return (
    <details className={classes.circuit} open={props.isOpen}>
      <summary>
        <Title order={4} size={16}>
          {circuit.name} <CircuitFacts circuit={circuit} practice={practice} />
        </Title>
        <span className={classes.shapes} aria-hidden>
          {circuit.points.map((point) => (
            <VerdictShape key={point.id} kind={point.verdict} size={18} />
          ))}
        </span>
      </summary>
      <div className={classes.circuitActs}>
        {circuit.points.length > 0 && (
          <Button
            component={Link}
            to={`/rounds/new?site=${siteId}&circuit=${circuit.id}`}
            variant="subtle"
            aria-label={`Go round ${circuit.name}`}
          >
            Go round
          </Button>
        )}
        <Button
          component={Link}
          to={`/prove-dead/new?site=${siteId}&circuit=${circuit.id}`}
          variant="subtle"
          aria-label={`Prove dead, ${circuit.name}`}
        >
          Prove dead
        </Button>
        <Button
          component={Link}
          to={`/dead-tests/new?circuit=${circuit.id}`}
          variant="subtle"
          aria-label={`Dead tests of ${circuit.name}`}
        >
          Dead tests
        </Button>
        <Button
          component={Link}
          to={`/hunts/new?site=${siteId}&circuit=${circuit.id}`}
          variant="subtle"
          aria-label={`Hunt a fault on ${circuit.name}`}
        >
          Hunt
        </Button>
        <Button
          component={Link}
          to={`/record/timeline/circuit/${circuit.id}`}
          variant="subtle"
          aria-label={`History of ${circuit.name}`}
        >
          History
        </Button>
        <Button
          component={Link}
          to={`/record/reports/circuit/${circuit.id}`}
          variant="subtle"
          aria-label={`Report of ${circuit.name}`}
        >
          Report
        </Button>
        <Button variant="subtle" aria-label={`Change ${circuit.name}`} onClick={props.onChange}>
          Change
        </Button>
        <Button variant={circuit.points.length ? "subtle" : "filled"} onClick={props.onAdd}>
          Add a point
        </Button>
      </div>
      {circuit.points.length > 0 && <Run circuit={circuit} />}
    </details>
  );
}

function CircuitFacts({ circuit, practice }: { circuit: Circuit; practice: Practice }) {
  return (
    <span className="quiet">
      {circuit.conductor ? `· ${circuit.conductor.replace("mm2", "mm²")}` : "· conductor not recorded"}
      {circuit.residual_ma != null &&
        ` · ${wordOf(practice, "residual-current device")} ${circuit.residual_ma} mA`}
    </span>
  );
}
