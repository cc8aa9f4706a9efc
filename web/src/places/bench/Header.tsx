import { Anchor } from "@mantine/core";
import { memo } from "react";
import { Link } from "react-router";
import type { Bench } from "../../api/client";
import { useIsShown } from "../../api/practice";
import { useSite } from "../../api/queries";
import { CASE } from "../../api/sandbox";
import { Run } from "../../parts/Run";
import classes from "./BenchPlace.module.css";
import { FileAway } from "./FileAway";

/** Where one stands: the site, the circuit as a run, this point on it, and the caution. */
export const Header = memo(function Header({ bench }: { bench: Bench }) {
  const site = useSite(bench.site.id);
  const isShown = useIsShown();
  const circuit = site.data?.supplies
    .flatMap((s) => s.boards)
    .flatMap((b) => b.circuits)
    .find((c) => c.id === bench.circuit.id);
  return (
    <header className={classes.header}>
      <div className={classes.crumb}>
        {CASE === null && <WaysFromHere bench={bench} />}
        <h1>{bench.name}</h1>
        {bench.from_file && <span className="quiet">Came from a {bench.from_file}</span>}
      </div>
      {bench.loose && <FileAway bench={bench} />}
      <div className={classes.run}>
        {circuit && isShown && <Run circuit={circuit} here={bench.id} compact />}
      </div>
      <strong className={classes.live}>Treat every part as live.</strong>
    </header>
  );
});

function WaysFromHere({ bench }: { bench: Bench }) {
  return (
    <>
      <Anchor component={Link} to={`/sites/${bench.site.id}`} size="sm">
        {bench.site.name}
      </Anchor>
      <span className="quiet"> · {bench.circuit.name} · </span>
      <Anchor component={Link} to={`/hunts/new?site=${bench.site.id}&circuit=${bench.circuit.id}`} size="sm">
        Hunt a fault
      </Anchor>
      <span className="quiet"> · </span>
      <Anchor component={Link} to={`/record/timeline/point/${bench.id}`} size="sm">
        History
      </Anchor>
    </>
  );
}
